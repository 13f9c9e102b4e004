#include "desk/run_page.hpp"

#include "desk/checklist_model.hpp"
#include "desk/file_dialogs.hpp"
#include "desk/sheet_printer.hpp"
#include "desk/theme.hpp"
#include "storage/atomic_file.hpp"
#include "storage/run_sheet.hpp"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QLabel>
#include <QListView>
#include <QMessageBox>
#include <QPrintDialog>
#include <QPrinter>
#include <QPushButton>
#include <QScrollBar>
#include <QTextBrowser>
#include <QTimer>

namespace poquito::desk {

RunPage::RunPage(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* left = addColumn(5);
    auto* head = addHeading(left, tr("Before the first frame"));
    progress_ = new QLabel(this);
    progress_->setObjectName(QStringLiteral("checklistProgress"));
    progress_->setProperty("quiet", true);
    head->addWidget(progress_);
    model_ = new ChecklistModel(document, this);
    list_ = new QListView(this);
    list_->setObjectName(QStringLiteral("checklistView"));
    list_->setAccessibleName(tr("Checklist"));
    list_->setToolTip(tr("Space or a click ticks an item off"));
    list_->setModel(model_);
    list_->setWordWrap(true);
    list_->setSpacing(2);
    list_->setUniformItemSizes(false);
    list_->setResizeMode(QListView::Adjust);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    left->addWidget(list_, 1);

    auto* right = addColumn(6);
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
            this, &RunPage::askAndPrint);
    preview_ = new QTextBrowser(this);
    preview_->setObjectName(QStringLiteral("sheetPreview"));
    preview_->setAccessibleName(tr("Run sheet of this shot"));
    preview_->document()->setDocumentMargin(12);
    right->addWidget(preview_, 1);
    // Setting text takes longer than a frame may; the sheet follows the last of several quick edits.
    laidOut_ = new QTimer(this);
    laidOut_->setSingleShot(true);
    laidOut_->setInterval(120);
    connect(laidOut_, &QTimer::timeout, this, &RunPage::showSheet);
}

void RunPage::showShot(const Shot& shot, const shoot::Report& report) {
    model_->refresh();
    const auto ticked =
        std::ranges::count_if(report.checklist, [&](const auto& item) { return shoot::is_ticked(shot, item.id); });
    progress_->setText(tr("%1 of %2").arg(ticked).arg(report.checklist.size()));
    if (preview_->document()->isEmpty())
        showSheet();
    else
        laidOut_->start();
}

void RunPage::showSheet() {
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
        document().shoot(), document().reports(), static_cast<std::size_t>(document().current()), style)));
    preview_->verticalScrollBar()->setValue(scrolled);
}

bool RunPage::exportSheet(const QString& path) {
    const auto reports = document().reports();
    const auto error =
        path.endsWith(QLatin1String(".pdf"), Qt::CaseInsensitive)
            ? writeSheetPdf(document().shoot(), reports, path)
            : storage::replace_file(path.toStdString(), storage::run_sheet_html(document().shoot(), reports));
    if (error)
        QMessageBox::warning(
            this, tr("Run sheet"),
            tr("The run sheet was not written.\n%1").arg(QString::fromStdString(storage::message(*error))));
    return !error;
}

void RunPage::askAndExport(const QString& ending) {
    const QFileInfo file(document().path());
    const QString suggested = document().path().isEmpty() ? QStringLiteral("run-sheet.") + ending
                                                          : file.path() + QLatin1Char('/') + file.completeBaseName() +
                                                                QLatin1Char('.') + ending;
    const QString path = askSavePath(this, tr("Export run sheet"), suggested, ending);
    if (!path.isEmpty()) exportSheet(path);
}

void RunPage::askAndPrint() {
    QPrinter printer(QPrinter::HighResolution);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() == QDialog::Accepted) printSheet(document().shoot(), document().reports(), printer);
}

}  // namespace poquito::desk
