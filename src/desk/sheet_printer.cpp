#include "desk/sheet_printer.hpp"

#include "desk/theme.hpp"
#include "storage/atomic_file.hpp"
#include "storage/run_sheet.hpp"

#include <QBuffer>
#include <QPageLayout>
#include <QPainter>
#include <QPdfWriter>
#include <QPrinter>
#include <QTextDocument>

namespace poquito::desk {
namespace {

const QMarginsF margins_mm(18, 16, 18, 16);

void print(const shoot::Shoot& shoot, const std::vector<shoot::Report>& reports, QPagedPaintDevice& device) {
    QTextDocument document;
    document.setDefaultFont(textFont(13));
    document.setHtml(QString::fromStdString(storage::run_sheet_html(shoot, reports)));
    document.print(&device);
}

}  // namespace

std::optional<storage::ReadError> writeSheetPdf(const shoot::Shoot& shoot, const std::vector<shoot::Report>& reports,
                                                const QString& path) {
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    {
        QPdfWriter writer(&buffer);
        writer.setTitle(QString::fromStdString(shoot.title));
        writer.setCreator(QStringLiteral("Poquito"));
        writer.setPageSize(QPageSize(QPageSize::A4));
        writer.setPageMargins(margins_mm, QPageLayout::Millimeter);
        print(shoot, reports, writer);
    }
    return storage::replace_file(path.toStdString(),
                                 std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
}

void printSheet(const shoot::Shoot& shoot, const std::vector<shoot::Report>& reports, QPrinter& printer) {
    print(shoot, reports, printer);
}

}  // namespace poquito::desk
