#include "desk/shell/sheet_printer.hpp"

#include "desk/base/theme.hpp"
#include "desk/base/to_qt.hpp"
#include "desk/set/bench_painter.hpp"
#include "desk/subject/frame_drawing.hpp"
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

#include <memory>

namespace poquito::desk {
namespace {

const QMarginsF margins_mm(15, 10, 15, 9);

std::string image(const QImage& drawn, int width) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    drawn.save(&buffer, "PNG");
    return QStringLiteral("<img src=\"data:image/png;base64,%1\" width=\"%2\">")
        .arg(QString::fromLatin1(bytes.toBase64()))
        .arg(width)
        .toStdString();
}

/// On white paper, whatever the desk looks like; finer than a screen's pixels.
template <typename Paint>
std::string drawing(QSize size, int width, const Paint& paint) {
    const ThemeScope paper(ThemeKind::print);
    constexpr int finer = 2;
    QImage drawn(size * finer, QImage::Format_RGB32);
    drawn.setDevicePixelRatio(finer);
    drawn.fill(Qt::white);
    QPainter painter(&drawn);
    painter.setRenderHint(QPainter::Antialiasing);
    paint(painter, QRectF(QPointF(), QSizeF(size)));
    painter.end();
    return image(drawn, width);
}

storage::SheetDrawings drawings_of(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments) {
    storage::SheetDrawings drawings;
    drawings.bench = [&](std::size_t i) {
        const QSize size(600, 234);
        return drawing(size, 436, [&](QPainter& painter, const QRectF& area) {
            const auto layout = benchLayout(shoot.kit, shoot.shots[i], assessments[i].report, Elevation::side, area);
            paintBench(painter, layout, assessments[i], Elevation::side, area, 0);
        });
    };
    drawings.frame = [&](std::size_t i) {
        const QSize size(270, 226);
        return drawing(size, 196, [&](QPainter& painter, const QRectF& area) {
            FrameDrawing::paintFrame(painter, area.adjusted(4, 20, -4, -4), shoot.shots[i], assessments[i].report);
            const auto& optics = assessments[i].report.optics;
            painter.setPen(theme().quiet);
            painter.setFont(textFont(13));
            if (optics.field_width)
                painter.drawText(area.adjusted(4, 0, 0, 0), Qt::AlignLeft | Qt::AlignTop,
                                 QObject::tr("Field %1 \u00d7 %2 mm")
                                     .arg(toQt(text::number_text(*optics.field_width)),
                                          toQt(text::number_text(*optics.field_height))));
        });
    };
    return drawings;
}

using Piece = std::unique_ptr<QTextDocument>;

/// Lays pieces out for the device in letters of a size in points.
class Setter {
  public:
    Setter(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPagedPaintDevice& device)
        : shoot_(shoot), assessments_(assessments), device_(device) {
        // Drawn once, however often it is set.
        const auto fresh = drawings_of(shoot, assessments);
        for (std::size_t i = 0; i < shoot.shots.size(); ++i) {
            benches_.push_back(fresh.bench(i));
            frames_.push_back(fresh.frame(i));
        }
    }
    Piece day() const { return set(storage::day_sheet_html(shoot_, assessments_, style(9)), 9); }
    Piece shot(std::size_t i, double points) const {
        const storage::SheetDrawings drawings{.bench = [this](std::size_t one) { return benches_[one]; },
                                              .frame = [this](std::size_t one) { return frames_[one]; }};
        return set(storage::shot_sheet_html(shoot_, assessments_, i, style(points), drawings), points);
    }

  private:
    static storage::SheetStyle style(double points) {
        const auto size = [](double pt) { return text::number_text(pt, 3) + "pt"; };
        return {.text_size = size(points), .title_size = size(points * 1.4), .setting_size = size(points * 1.9)};
    }
    Piece set(const std::string& html, double points) const {
        auto document = std::make_unique<QTextDocument>();
        QFont font = textFont();
        font.setPointSizeF(points);
        document->setDefaultFont(font);
        document->documentLayout()->setPaintDevice(&device_);
        document->setDocumentMargin(0);
        document->setHtml(toQt(html));
        document->setTextWidth(device_.width());
        return document;
    }

    const shoot::Shoot& shoot_;
    const std::vector<advice::Assessment>& assessments_;
    QPagedPaintDevice& device_;
    std::vector<std::string> benches_, frames_;
};

/// A stretch of a piece on a page, in the device's pixels.
struct Part {
    std::size_t piece;
    double from, height, y;
};

/// Two shots a page where both go there whole in letters that can be read; else one, as large as it goes there.
struct Pages {
    std::vector<Piece> pieces;
    std::vector<std::vector<Part>> parts;

    Pages(const Setter& setter, std::size_t shots, double whole, double between) {
        put(setter.day(), whole);
        constexpr double small = 8;
        for (std::size_t i = 0; i < shots; ++i) {
            if (i + 1 < shots) {
                auto one = setter.shot(i, small), two = setter.shot(i + 1, small);
                const double first = one->size().height(), second = two->size().height();
                if (first + between + second <= whole) {
                    put(std::move(one), whole);
                    parts.back().push_back({pieces.size(), 0, second, first + between});
                    pieces.push_back(std::move(two));
                    ++i;
                    continue;
                }
            }
            Piece fitting;
            for (const double points : {12.0, 11.0, 10.0, 9.0, small}) {
                fitting = setter.shot(i, points);
                if (fitting->size().height() <= whole) break;
            }
            put(std::move(fitting), whole);
        }
    }

  private:
    /// On pages of its own: one, or as many as it is long.
    void put(Piece piece, double whole) {
        const double height = piece->size().height();
        for (double from = 0; from < height; from += whole)
            parts.push_back({{pieces.size(), from, std::min(whole, height - from), 0}});
        pieces.push_back(std::move(piece));
    }
};

void print(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPagedPaintDevice& device) {
    QPainter painter(&device);
    const double unit = device.logicalDpiX() / 96.0, foot = 20 * unit, between = 14 * unit;
    const Setter setter(shoot, assessments, device);
    const Pages pages(setter, shoot.shots.size(), device.height() - foot, between);
    const ThemeScope paper(ThemeKind::print);
    QFont small = textFont();
    small.setPointSizeF(8);
    for (std::size_t i = 0; i < pages.parts.size(); ++i) {
        if (i > 0) device.newPage();
        for (const auto& [piece, from, height, y] : pages.parts[i]) {
            painter.save();
            painter.translate(0, y - from);
            pages.pieces[piece]->drawContents(&painter, QRectF(0, from, device.width(), height));
            painter.restore();
        }
        painter.setFont(small);
        painter.setPen(theme().quiet);
        const QRectF line(0, device.height() - foot, device.width(), foot);
        painter.drawText(line, Qt::AlignLeft | Qt::AlignBottom, toQt(shoot.title));
        painter.drawText(line, Qt::AlignRight | Qt::AlignBottom,
                         QObject::tr("%1 of %2").arg(i + 1).arg(pages.parts.size()));
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

std::optional<storage::ReadError> writeSheet(const shoot::Shoot& shoot,
                                             const std::vector<advice::Assessment>& assessments, const QString& path) {
    const bool page = path.endsWith(QLatin1String(".html"), Qt::CaseInsensitive);
    return storage::replace_file(
        path.toStdString(),
        page ? storage::run_sheet_html(shoot, assessments, {.narrow_screens = true}, drawings_of(shoot, assessments))
             : pdf(shoot, assessments).toStdString());
}

void printSheet(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPrinter& printer) {
    print(shoot, assessments, printer);
}

}  // namespace poquito::desk
