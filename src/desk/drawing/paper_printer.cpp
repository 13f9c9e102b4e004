#include "desk/drawing/paper_printer.hpp"

#include "desk/drawing/bench_painter.hpp"
#include "desk/drawing/frame_drawing.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/theme.hpp"
#include "storage/atomic_file.hpp"
#include "storage/run_sheet.hpp"
#include "text/text.hpp"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QImage>
#include <QPageLayout>
#include <QPainter>
#include <QPdfWriter>
#include <QPrinter>
#include <QTextDocument>
#include <QUrl>

#include <algorithm>
#include <array>
#include <map>
#include <memory>
#include <optional>
#include <utility>
#include <vector>

namespace poquito::desk {
namespace {

const QMarginsF margins_mm(15, 10, 15, 9);

/// A drawing's size as it is drawn, px, and its width on the sheet; with its height there, a page can be laid out
/// before it is drawn.
struct Room {
    const char* name;
    QSize size;
    int width;
};
constexpr Room bench_room = {"bench", {600, 234}, 436}, frame_room = {"frame", {270, 226}, 196};

std::string image(const QString& from, const Room& room) {
    return QStringLiteral("<img src=\"%1\" width=\"%2\" height=\"%3\">")
        .arg(from)
        .arg(room.width)
        .arg(room.width * room.size.height() / room.size.width())
        .toStdString();
}

/// For a page that stands alone.
std::string embedded(const QImage& drawn, const Room& room) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    drawn.save(&buffer, "PNG");
    return image(QStringLiteral("data:image/png;base64,") + QString::fromLatin1(bytes.toBase64()), room);
}

/// On white paper, whatever the desk looks like; finer than a screen's pixels.
template <typename Paint>
QImage drawing(QSize size, const Paint& paint) {
    const ThemeScope paper(ThemeKind::print);
    constexpr int finer = 2;
    QImage drawn(size * finer, QImage::Format_RGB32);
    drawn.setDevicePixelRatio(finer);
    drawn.fill(Qt::white);
    QPainter painter(&drawn);
    painter.setRenderHint(QPainter::Antialiasing);
    paint(painter, QRectF(QPointF(), QSizeF(size)));
    painter.end();
    return drawn;
}

QImage bench_of(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, std::size_t i) {
    return drawing(bench_room.size, [&](QPainter& painter, const QRectF& area) {
        const auto layout = benchLayout(shoot.kit, shoot.shots[i], assessments[i].report, Elevation::side, area);
        paintBench(painter, layout, assessments[i], Elevation::side, area, 0);
    });
}

QImage frame_of(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, std::size_t i) {
    return drawing(frame_room.size, [&](QPainter& painter, const QRectF& area) {
        FrameDrawing::paintFrame(painter, area.adjusted(4, 20, -4, -4), shoot.shots[i], assessments[i].report);
        const auto& optics = assessments[i].report.optics;
        painter.setPen(theme().quiet);
        painter.setFont(textFont(13));
        if (optics.field_width)
            painter.drawText(
                area.adjusted(4, 0, 0, 0), Qt::AlignLeft | Qt::AlignTop,
                QObject::tr("Field %1 \u00d7 %2 mm")
                    .arg(toQt(text::number_text(*optics.field_width)), toQt(text::number_text(*optics.field_height))));
    });
}

storage::SheetDrawings embedded_drawings(const shoot::Shoot& shoot,
                                         const std::vector<advice::Assessment>& assessments) {
    return {.bench = [&](std::size_t i) { return embedded(bench_of(shoot, assessments, i), bench_room); },
            .frame = [&](std::size_t i) { return embedded(frame_of(shoot, assessments, i), frame_room); }};
}

using Piece = std::unique_ptr<QTextDocument>;

/// Lays pieces out for the device in letters of a size in points: the day, or a shot. One is held at a time, and drawn
/// only where it is to be printed: a thousand shots take no more memory than one.
class Setter {
  public:
    using Shot = std::optional<std::size_t>;  // empty: the day

    Setter(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPagedPaintDevice& device)
        : shoot_(shoot), assessments_(assessments), device_(device) {}

    double height(Shot shot, double points) {
        const auto [found, fresh] = heights_.try_emplace({shot.value_or(shoot_.shots.size()), points}, 0.0);
        if (fresh) found->second = set(shot, points, Drawn::no)->size().height();
        return found->second;
    }
    void draw(Shot shot, double points, QPainter& painter, const QRectF& part) {
        if (!drawn_ || drawn_shot_ != shot || drawn_points_ != points)
            drawn_ = set(shot, points, Drawn::yes), drawn_shot_ = shot, drawn_points_ = points;
        drawn_->drawContents(&painter, part);
    }

  private:
    static storage::SheetStyle style(double points) {
        const auto size = [](double pt) { return text::number_text(pt, 3) + "pt"; };
        return {.text_size = size(points), .title_size = size(points * 1.4), .setting_size = size(points * 1.9)};
    }
    enum class Drawn { no, yes };
    Piece set(Shot shot, double points, Drawn drawn) const {
        const storage::SheetDrawings rooms = {
            .bench = [](std::size_t) { return image(QLatin1String(bench_room.name), bench_room); },
            .frame = [](std::size_t) { return image(QLatin1String(frame_room.name), frame_room); }};
        const auto html = shot ? storage::shot_sheet_html(shoot_, assessments_, *shot, style(points), rooms)
                               : storage::day_sheet_html(shoot_, assessments_, style(points));
        auto document = std::make_unique<QTextDocument>();
        document->setUndoRedoEnabled(false);
        if (shot) {
            const bool real = drawn == Drawn::yes;
            const QImage none(1, 1, QImage::Format_RGB32);
            const auto put = [&](const Room& room, const QImage& drawing) {
                document->addResource(QTextDocument::ImageResource, QUrl(QLatin1String(room.name)), drawing);
            };
            put(bench_room, real ? bench_of(shoot_, assessments_, *shot) : none);
            put(frame_room, real ? frame_of(shoot_, assessments_, *shot) : none);
        }
        QFont font = textFont();
        font.setPointSizeF(points);
        document->setDefaultFont(font);
        document->documentLayout()->setPaintDevice(&device_);
        document->setDocumentMargin(0);
        document->setTextWidth(device_.width());  // before there is anything to lay out
        document->setHtml(toQt(html));
        return document;
    }

    const shoot::Shoot& shoot_;
    const std::vector<advice::Assessment>& assessments_;
    QPagedPaintDevice& device_;
    std::map<std::pair<std::size_t, double>, double> heights_;
    Piece drawn_;
    Shot drawn_shot_;
    double drawn_points_ = 0;
};

/// A stretch of a piece on a page, in the device's pixels.
struct Part {
    Setter::Shot shot;
    double points, from, height, y;
};

/// Two shots a page where both go there whole in letters that can be read; else one, as large as it goes there.
std::vector<std::vector<Part>> pages_of(Setter& setter, std::size_t shots, double whole, double between) {
    std::vector<std::vector<Part>> pages;
    // On pages of its own: one, or as many as it is long.
    const auto put = [&](Setter::Shot shot, double points) {
        const double height = setter.height(shot, points);
        for (double from = 0; from < height; from += whole)
            pages.push_back({{shot, points, from, std::min(whole, height - from), 0}});
    };
    put(std::nullopt, 9);
    constexpr double small = 8;
    for (std::size_t i = 0; i < shots; ++i) {
        if (i + 1 < shots) {
            const double first = setter.height(i, small), second = setter.height(i + 1, small);
            if (first + between + second <= whole) {
                put(i, small);
                pages.back().push_back({i + 1, small, 0, second, first + between});
                ++i;
                continue;
            }
        }
        // The largest that fits; the larger the letters, the higher the piece.
        constexpr std::array sizes = {small, 9.0, 10.0, 11.0, 12.0};
        const auto too_large = std::partition_point(sizes.begin() + 1, sizes.end(),
                                                    [&](double points) { return setter.height(i, points) <= whole; });
        put(i, *(too_large - 1));
    }
    return pages;
}

void print(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPagedPaintDevice& device) {
    QPainter painter(&device);
    const double unit = device.logicalDpiX() / 96.0, foot = 20 * unit, between = 14 * unit;
    Setter setter(shoot, assessments, device);
    const auto pages = pages_of(setter, shoot.shots.size(), device.height() - foot, between);
    const ThemeScope paper(ThemeKind::print);
    QFont small = textFont();
    small.setPointSizeF(8);
    for (std::size_t i = 0; i < pages.size(); ++i) {
        if (i > 0) device.newPage();
        for (const auto& [shot, points, from, height, y] : pages[i]) {
            painter.save();
            painter.translate(0, y - from);
            setter.draw(shot, points, painter, QRectF(0, from, device.width(), height));
            painter.restore();
        }
        painter.setFont(small);
        painter.setPen(theme().quiet);
        const QRectF line(0, device.height() - foot, device.width(), foot);
        painter.drawText(line, Qt::AlignLeft | Qt::AlignBottom, toQt(shoot.title));
        painter.drawText(line, Qt::AlignRight | Qt::AlignBottom, QObject::tr("%1 of %2").arg(i + 1).arg(pages.size()));
    }
}

QByteArray pdf(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setTitle(toQt(shoot.title));
        writer.setCreator(QStringLiteral("Poquito"));
        writer.setResolution(300);
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(margins_mm, QPageLayout::Millimeter);
        print(shoot, assessments, writer);
    }
    return bytes;
}

}  // namespace

text::Expected<void> writePaper(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments,
                                const QString& path) {
    const bool page = path.endsWith(QLatin1String(".html"), Qt::CaseInsensitive);
    return storage::replace_file(path.toStdString(),
                                 page ? storage::run_sheet_html(shoot, assessments, {.narrow_screens = true},
                                                                embedded_drawings(shoot, assessments))
                                      : pdf(shoot, assessments).toStdString());
}

void printPaper(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPrinter& printer) {
    print(shoot, assessments, printer);
}

}  // namespace poquito::desk
