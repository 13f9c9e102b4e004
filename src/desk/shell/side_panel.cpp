#include "desk/shell/side_panel.hpp"

#include "desk/reading/reading_view.hpp"
#include "desk/session/document.hpp"
#include "desk/session/shipped_handbook.hpp"
#include "desk/shell/ledger_model.hpp"
#include "desk/shell/ledger_view.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"

#include <QApplication>
#include <QToolButton>
#include <QVBoxLayout>

namespace poquito::desk {

SidePanel::SidePanel(const Document& document, QWidget* parent) : QWidget(parent), document_(document) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(4);
    ledger_ = new LedgerView(new LedgerModel(document, this), this);
    column->addWidget(ledger_, 1);
    connect(ledger_, &LedgerView::mendWanted, this, &SidePanel::mendWanted);
    connect(ledger_, &LedgerView::putRightWanted, this, &SidePanel::putRightWanted);
    connect(ledger_, &LedgerView::readWanted, this, &SidePanel::readFigure);
    offer_ = new QToolButton(this);
    nameControl(offer_,
                {"readButton", tr("Read about it"), tr("A page of the handbook, with this shot's numbers; F1")});
    offer_->setProperty("link", true);
    connect(offer_, &QToolButton::clicked, this, &SidePanel::turnReading);
    column->addWidget(offer_, 0, Qt::AlignLeft);
    connect(qApp, &QApplication::focusChanged, this, [this](QWidget*, QWidget* now) {
        if (reads()) reading_->explain(now);
    });
    offer();
}

bool SidePanel::reads() const { return reading_ && !reading_->isHidden(); }

/// What F1 would open.
void SidePanel::offer() {
    const auto* page = handbook::page_of_tab(shippedHandbook(), station_, tab_.toStdString());
    offer_->setVisible(page && !reads());
    if (!page) return;
    offer_->setText(tr("Read: %1  F1").arg(toQt(page->title)));
    if (reads() && page != reading_->page()) reading_->show(*page);
}

void SidePanel::setStation(advice::Station station) {
    station_ = station;
    tab_.clear();
    ledger_->ledger()->setStation(station);
    ledger_->scrollToTop();
}

void SidePanel::setTab(const QString& tab) {
    tab_ = tab;
    offer();
}

ReadingView* SidePanel::reading() {
    if (reading_) return reading_;
    reading_ = new ReadingView(document_, this);
    reading_->hide();
    static_cast<QVBoxLayout*>(layout())->insertWidget(0, reading_, 1);
    connect(reading_, &ReadingView::leaveWanted, this, &SidePanel::close);
    connect(reading_, &ReadingView::handbookWanted, this, &SidePanel::handbookWanted);
    return reading_;
}

void SidePanel::turnReading() {
    if (reads()) return close();
    const auto* page = handbook::page_of_tab(shippedHandbook(), station_, tab_.toStdString());
    const auto number = ledger_->hasFocus() ? ledger_->currentIndex() : QModelIndex();
    if (number.isValid())
        if (const auto* of_number =
                handbook::page_of_figure(shippedHandbook(), number.data(LedgerModel::keyRole).toString().toStdString()))
            page = of_number;
    if (!page) return;
    auto* focused = QApplication::focusWidget();
    reading()->show(*page);
    reading_->explain(focused);
    ledger_->hide();
    offer_->hide();
    Q_EMIT readingTurned();
}

void SidePanel::readFigure(const std::string& key) {
    const auto* page = handbook::page_of_figure(shippedHandbook(), key);
    if (!page) return;
    const bool turned = !reads();
    reading()->show(*page);
    ledger_->hide();
    offer_->hide();
    if (turned) Q_EMIT readingTurned();
}

void SidePanel::close() {
    const bool had = reading_->isAncestorOf(QApplication::focusWidget());
    reading_->hide();
    ledger_->show();
    if (had) ledger_->setFocus();
    offer();
    Q_EMIT readingTurned();
}

void SidePanel::refresh() {
    if (reads()) reading_->refresh();
}

}  // namespace poquito::desk

#include "desk/shell/moc_side_panel.moc"
