#pragma once

#include "desk/toolkit/quantity.hpp"

#include <QAbstractSpinBox>

namespace poquito::desk {

/// A number with its unit. Wheel and arrow keys step along the quantity's own scale; free typing takes whatever the
/// quantity understands. Half-typed text is no error: the value stays, the frame turns, and leaving the field brings
/// the last good value back.
class QuantityField : public QAbstractSpinBox {
    Q_OBJECT
  public:
    explicit QuantityField(Quantity quantity, QWidget* parent = nullptr);

    double value() const { return value_; }
    const Quantity& quantity() const { return quantity_; }
    /// Shows a value without telling anyone. While valueEdited is being answered the text stays as it is typed.
    void setValue(double value);
    /// A new one for every visit of the cursor: edits of one visit are one step of the history.
    int visit() const { return visit_; }

    QValidator::State validate(QString& text, int& cursor) const override;
    void stepBy(int steps) override;
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override { return {78, sizeHint().height()}; }

  Q_SIGNALS:
    void valueEdited(double value);  // by a person, and allowed

  protected:
    bool event(QEvent* event) override;
    StepEnabled stepEnabled() const override { return StepUpEnabled | StepDownEnabled; }
    void focusInEvent(QFocusEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

  private:
    void readText(const QString& text);
    void tell(double value);
    void setWrong(bool wrong);
    void showValue();

    Quantity quantity_;
    double value_ = 0;
    double settled_ = 0;  // before what is being typed
    QString typed_;       // so far
    int visit_ = 0;
    bool wrong_ = false;
    bool telling_ = false;
};

}  // namespace poquito::desk
