#include "desk/toolkit/quantity_field.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/line_field.hpp"

#include <QKeyEvent>
#include <QLineEdit>
#include <QWheelEvent>

namespace poquito::desk {

QuantityField::QuantityField(Quantity quantity, QWidget* parent)
    : QAbstractSpinBox(parent), quantity_(std::move(quantity)) {
    setButtonSymbols(NoButtons);
    setFocusPolicy(Qt::StrongFocus);  // the wheel steps only the field one is in
    connect(lineEdit(), &QLineEdit::textEdited, this, &QuantityField::readText);
}

void QuantityField::setValue(double value) {
    value_ = value;
    if (telling_) return;  // what answers the typing itself must not change the text under it
    settled_ = value;
    showValue();
}

bool QuantityField::event(QEvent* event) {
    if (!asksForHistory(event)) return QAbstractSpinBox::event(event);
    event->ignore();  // as with a LineField
    return false;
}

QValidator::State QuantityField::validate(QString& text, int&) const {
    const auto value = quantity_.parse(text.toStdString());
    return value && quantity_.allows(*value) ? QValidator::Acceptable : QValidator::Intermediate;
}

void QuantityField::stepBy(int steps) {
    const double stepped = quantity_.step(value_, steps);
    if (!quantity_.allows(stepped) || stepped == value_) return;
    value_ = settled_ = stepped;
    showValue();
    Q_EMIT valueEdited(value_);
}

QSize QuantityField::sizeHint() const { return {86, 24}; }

void QuantityField::focusInEvent(QFocusEvent* event) {
    ++visit_;
    settled_ = value_;
    QAbstractSpinBox::focusInEvent(event);
}

void QuantityField::focusOutEvent(QFocusEvent* event) {
    QAbstractSpinBox::focusOutEvent(event);
    settled_ = value_;
    showValue();
}

void QuantityField::wheelEvent(QWheelEvent* event) {
    if (!hasFocus()) return event->ignore();
    QAbstractSpinBox::wheelEvent(event);
}

void QuantityField::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && lineEdit()->isModified()) {
        tell(settled_);
        return showValue();
    }
    if ((event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) && !wrong_) {
        settled_ = value_;
        showValue();
        selectAll();
        return;
    }
    QAbstractSpinBox::keyPressEvent(event);
}

void QuantityField::readText(const QString& text) {
    lineEdit()->setModified(true);
    const auto value = quantity_.parse(text.toStdString());
    const bool good = value && quantity_.allows(*value);
    // A text that does not go on with the one before it begins anew: what stood there was meant.
    if (!wrong_ && !text.startsWith(typed_)) settled_ = value_;
    typed_ = text;
    setWrong(!good);
    // What is refused leaves nothing of itself behind: "1.234" was the value only until "1.234,5" stood there.
    tell(good ? *value : settled_);
}

void QuantityField::tell(double value) {
    if (value == value_) return;
    value_ = value;
    telling_ = true;
    Q_EMIT valueEdited(value);
    telling_ = false;
}

void QuantityField::setWrong(bool wrong) {
    wrong_ = wrong;
    markWrong(this, wrong ? QStringLiteral("Expected %1.").arg(quantity_.expected) : QString());
}

void QuantityField::showValue() {
    setWrong(false);
    const auto text = toQt(quantity_.print(value_));
    typed_ = text;
    if (lineEdit()->text() == text && !lineEdit()->isModified()) return;
    lineEdit()->setText(text);
    lineEdit()->setCursorPosition(0);
    lineEdit()->setModified(false);
}

}  // namespace poquito::desk

#include "desk/toolkit/moc_quantity_field.moc"
