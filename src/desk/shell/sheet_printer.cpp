#include "desk/shell/sheet_printer.hpp"

#include "desk/base/theme.hpp"
#include "storage/atomic_file.hpp"
#include "storage/run_sheet.hpp"

#include <QAbstractTextDocumentLayout>
#include <QBuffer>
#include <QPageLayout>
#include <QPainter>
#include <QPdfWriter>
#include <QPrinter>
#include <QTextDocument>

namespace poquito::desk {
namespace {

const QMarginsF margins_mm(18, 16, 18, 16);

/// Page by page at the device's own resolution: the text document's own printing cuts the first line of a page.
void print(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPagedPaintDevice& device) {
    QPainter painter(&device);
    const QRectF page(0, 0, device.width(), device.height());
    QTextDocument document;
    QFont font = textFont();
    font.setPointSizeF(10);
    document.setDefaultFont(font);
    document.documentLayout()->setPaintDevice(&device);
    document.setDocumentMargin(0);
    document.setHtml(QString::fromStdString(storage::run_sheet_html(shoot, assessments)));
    document.setPageSize(page.size());
    for (int i = 0; i < document.pageCount(); ++i) {
        if (i > 0) device.newPage();
        painter.save();
        painter.translate(0, -i * page.height());
        document.drawContents(&painter, page.translated(0, i * page.height()));
        painter.restore();
    }
}

}  // namespace

std::optional<storage::ReadError> writeSheetPdf(const shoot::Shoot& shoot,
                                                const std::vector<advice::Assessment>& assessments,
                                                const QString& path) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setTitle(QString::fromStdString(shoot.title));
        writer.setCreator(QStringLiteral("Poquito"));
        writer.setResolution(300);
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(margins_mm, QPageLayout::Millimeter);
        print(shoot, assessments, writer);
    }
    return storage::replace_file(path.toStdString(),
                                 std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

void printSheet(const shoot::Shoot& shoot, const std::vector<advice::Assessment>& assessments, QPrinter& printer) {
    print(shoot, assessments, printer);
}

}  // namespace poquito::desk
