#pragma once

#include <QStyledItemDelegate>

namespace poquito::desk {

/// A row of a list as its text, and below it in quiet letters what its tooltip says; both wrap.
class TwoLineDelegate : public QStyledItemDelegate {
  public:
    /// `indent`: pixels before the text, such as a tick takes.
    TwoLineDelegate(int indent, QObject* parent) : QStyledItemDelegate(parent), indent_(indent) {}

    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override;
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override;

  private:
    int wrapWidth(const QStyleOptionViewItem& option) const;

    int indent_;
};

}  // namespace poquito::desk
