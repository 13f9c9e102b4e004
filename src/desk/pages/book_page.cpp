#include "desk/pages/book_page.hpp"

#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"

#include <QPagedPaintDevice>
#include <QPainter>
#include <QPrintDialog>
#include <QPrinter>

#include <algorithm>
#include <cmath>

namespace poquito::desk {

namespace {

constexpr double beside = 8, above = 6;  // px that the frame of the keys stands off what is written

}  // namespace

BookPage::BookPage(QWidget* parent) : QWidget(parent) { setFocusPolicy(Qt::StrongFocus); }

bool BookPage::printOn(QPagedPaintDevice& device) const {
    device.setPageMargins(QMarginsF(15, 15, 15, 15), QPageLayout::Millimeter);
    QPainter painter;
    if (!painter.begin(&device)) return false;
    const ThemeScope paper(ThemeKind::print);
    painter.setRenderHint(QPainter::Antialiasing);
    constexpr double wide = 760;  // px of the desk across a sheet
    const double dots = device.width(), tall = device.height() * wide / dots, height = heightFor(wide);
    // One sheet: what is longer is drawn smaller.
    const double scale = dots / wide * std::min(1.0, tall / height);
    painter.scale(scale, scale);
    draw(painter, QRectF(0, 0, wide, std::max(tall, height)));
    return painter.end();
}

void BookPage::askAndPrint() {
    QPrinter printer(QPrinter::HighResolution);
    QPrintDialog dialog(&printer, this);
    if (dialog.exec() == QDialog::Accepted) printOn(printer);
}

void BookPage::writeLine(QPainter& painter, const QRectF& area, const QFont& font, const QColor& colour,
                         const QString& words) {
    painter.setFont(font);
    painter.setPen(colour);
    drawLine(painter, area, Qt::AlignLeft | Qt::AlignVCenter, elided(font, words, area.width()));
}

void BookPage::writeHeading(QPainter& painter, const QRectF& area, const QString& words) {
    writeLine(painter, QRectF(area.left(), area.top(), area.width(), 18), textFont(13, QFont::DemiBold), theme().ink,
              words);
    painter.setPen(QPen(theme().hairline, 1));
    painter.drawLine(QPointF(area.left(), area.top() + 21.5), QPointF(area.right(), area.top() + 21.5));
}

void BookPage::fit() {
    setMinimumHeight(static_cast<int>(std::ceil(heightFor(std::max(360.0, width() - 2 * beside)) + above)));
    update();
}

void BookPage::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fit();
}

void BookPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    draw(painter, QRectF(rect()).adjusted(beside, above, -beside, 0));
    if (hasFocus()) drawFocusRing(painter, QRectF(rect()).adjusted(1, 1, -2, -2));
}

}  // namespace poquito::desk

#include "desk/pages/moc_book_page.moc"
