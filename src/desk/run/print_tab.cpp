#include "desk/run/print_tab.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/theme.hpp"
#include "storage/run_sheet.hpp"

#include <QScrollBar>
#include <QTextBrowser>
#include <QTimer>
#include <QVBoxLayout>

namespace poquito::desk {

PrintTab::PrintTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* right = addColumn(1);
    preview_ = new QTextBrowser(this);
    preview_->setObjectName(QStringLiteral("sheetPreview"));
    preview_->setAccessibleName(tr("Run sheet of this shot"));
    preview_->document()->setDocumentMargin(12);
    right->addWidget(preview_, 1);
    // Setting text takes longer than a frame may; the sheet follows the last of several quick edits.
    laidOut_ = new QTimer(this);
    laidOut_->setSingleShot(true);
    laidOut_->setInterval(120);
    connect(laidOut_, &QTimer::timeout, this, &PrintTab::showSheet);
}

void PrintTab::showShot(const Shot&, const plan::Report&) {
    if (preview_->document()->isEmpty())
        showSheet();
    else
        laidOut_->start();
}

void PrintTab::showSheet() {
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
    preview_->setHtml(toQt(storage::shot_sheet_html(document().shoot(), document().assessments(),
                                                    static_cast<std::size_t>(document().current()), style)));
    preview_->verticalScrollBar()->setValue(scrolled);
}

}  // namespace poquito::desk

#include "desk/run/moc_print_tab.moc"
