#include "desk/run/sheet_leaf.hpp"

#include "desk/base/file_dialogs.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/sheet_printer.hpp"
#include "storage/atomic_file.hpp"
#include "storage/run_sheet.hpp"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QScrollBar>
#include <QTextBrowser>
#include <QTimer>

namespace poquito::desk {

SheetLeaf::SheetLeaf(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* right = addColumn(1);
    auto* bar = addHeading(right, tr("Run sheet"));
    const auto button = [&](const char* name, const QString& text, const QString& tip) {
        auto* made = new QPushButton(text, this);
        made->setObjectName(QLatin1String(name));
        made->setAccessibleName(tip);
        made->setToolTip(tip);
        bar->addWidget(made);
        return made;
    };
    connect(button("exportPdfButton", tr("PDF…"), tr("Export the run sheet of the whole shoot as PDF")),
            &QPushButton::clicked, this, [this] { askAndExport(QStringLiteral("pdf")); });
    connect(button("exportHtmlButton", tr("HTML…"), tr("Export the run sheet of the whole shoot as one HTML page")),
            &QPushButton::clicked, this, [this] { askAndExport(QStringLiteral("html")); });
    connect(button("printButton", tr("Print…"), tr("Print the run sheet of the whole shoot")), &QPushButton::clicked,
            this, &SheetLeaf::askAndPrint);
    preview_ = new QTextBrowser(this);
    preview_->setObjectName(QStringLiteral("sheetPreview"));
    preview_->setAccessibleName(tr("Run sheet of this shot"));
    preview_->document()->setDocumentMargin(12);
    right->addWidget(preview_, 1);
    // Setting text takes longer than a frame may; the sheet follows the last of several quick edits.
    laidOut_ = new QTimer(this);
    laidOut_->setSingleShot(true);
    laidOut_->setInterval(120);
    connect(laidOut_, &QTimer::timeout, this, &SheetLeaf::showSheet);
}

void SheetLeaf::showShot(const Shot&, const plan::Report&) {
    if (preview_->document()->isEmpty())
        showSheet();
    else
        laidOut_->start();
}

void SheetLeaf::showSheet() {
    if (!document().shot()) return preview_->clear();
    const int scrolled = preview_->verticalScrollBar()->value();
    const auto css = [](const QColor& colour) { return colour.name().toStdString(); };
    const storage::SheetStyle style{.ink = css(theme().ink),
                                    .part = css(theme().focus),
                                    .quiet = css(theme().quiet),
                                    .stop = css(theme().stop),
                                    .caution = css(theme().caution),
                                    .text_size = "12px",
                                    .title_size = "15px"};
    preview_->setHtml(QString::fromStdString(storage::shot_sheet_html(
        document().shoot(), document().assessments(), static_cast<std::size_t>(document().current()), style)));
    preview_->verticalScrollBar()->setValue(scrolled);
}

bool SheetLeaf::exportSheet(const QString& path) {
    const auto assessments = document().assessments();
    const auto error =
        path.endsWith(QLatin1String(".pdf"), Qt::CaseInsensitive)
            ? writeSheetPdf(document().shoot(), assessments, path)
            : storage::replace_file(path.toStdString(), storage::run_sheet_html(document().shoot(), assessments));
    if (error)
        QMessageBox::warning(
            this, tr("Run sheet"),
            tr("The run sheet was not written.\n%1").arg(QString::fromStdString(storage::message(*error))));
    return !error;
}

void SheetLeaf::askAndExport(const QString& ending) {
    const QFileInfo file(document().path());
    const QString suggested = document().path().isEmpty() ? QStringLiteral("run-sheet.") + ending
                                                          : file.path() + QLatin1Char('/') + file.completeBaseName() +
                                                                QLatin1Char('.') + ending;
    const QString path = askSavePath(this, tr("Export run sheet"), suggested, ending);
    if (!path.isEmpty()) exportSheet(path);
}

void SheetLeaf::askAndPrint() {
    QPrinter printer(QPrinter::HighResolution);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() == QDialog::Accepted) printSheet(document().shoot(), document().assessments(), printer);
}

}  // namespace poquito::desk
