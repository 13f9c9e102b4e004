#include "desk/proof/proof_notes.hpp"

#include "desk/text/to_qt.hpp"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QStyledItemDelegate>

namespace poquito::desk {
namespace {

NoteCard cardOf(const proof::Note& note) {
    constexpr NoteMark marks[] = {NoteMark::stop, NoteMark::caution, NoteMark::info, NoteMark::well};
    return {.mark = marks[static_cast<int>(note.tone)], .text = toQt(note.text), .link = toQt(note.action)};
}

}  // namespace

class ProofNotes::Model : public QAbstractListModel {
  public:
    explicit Model(ProofNotes& list) : QAbstractListModel(&list), list_(list) {}

    int rowCount(const QModelIndex& parent = {}) const override {
        return parent.isValid() ? 0 : static_cast<int>(list_.notes_.size());
    }
    QVariant data(const QModelIndex& index, int role) const override {
        if (!index.isValid() || (role != Qt::DisplayRole && role != Qt::AccessibleTextRole)) return {};
        const auto& note = list_.notes_[static_cast<std::size_t>(index.row())];
        return toQt(note.action.empty() ? note.text : note.text + " " + note.action);
    }
    void reset(const std::vector<proof::Note>& notes) {
        beginResetModel();
        list_.notes_ = notes;
        endResetModel();
    }

  private:
    ProofNotes& list_;
};

class ProofNotes::Delegate : public QStyledItemDelegate {
  public:
    explicit Delegate(ProofNotes& list) : QStyledItemDelegate(&list), list_(list) {}

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override {
        return {100,
                noteCardHeight(cardOf(list_.notes_[static_cast<std::size_t>(index.row())]), list_.viewport()->width())};
    }
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        drawNoteCard(*painter, option.rect, cardOf(list_.notes_[static_cast<std::size_t>(index.row())]),
                     option.state & QStyle::State_Selected);
        painter->restore();
    }

  private:
    ProofNotes& list_;
};

ProofNotes::ProofNotes(QWidget* parent) : StillList(parent), model_(new Model(*this)) {
    setObjectName(QStringLiteral("proofNotes"));
    setAccessibleName(tr("What the frames show"));
    setProperty("bare", true);
    setModel(model_);
    setItemDelegate(new Delegate(*this));
    setVerticalScrollMode(ScrollPerPixel);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setSelectionMode(SingleSelection);
}

void ProofNotes::setNotes(const std::vector<proof::Note>& notes) {
    model_->reset(notes);
    scrollToTop();
}

QRect ProofNotes::linkRect(int row) const {
    return noteLinkRect(visualRect(model_->index(row)), toQt(notes_[static_cast<std::size_t>(row)].action));
}

void ProofNotes::mouseReleaseEvent(QMouseEvent* event) {
    StillList::mouseReleaseEvent(event);
    const auto index = indexAt(event->position().toPoint());
    if (!index.isValid() || event->button() != Qt::LeftButton) return;
    if (linkRect(index.row()).contains(event->position().toPoint()))
        Q_EMIT takeWanted(index.row());
    else
        Q_EMIT chosen(index.row());
}

void ProofNotes::keyPressEvent(QKeyEvent* event) {
    const bool enter = event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter;
    if (!enter || !currentIndex().isValid()) {
        const int before = currentIndex().row();
        if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
            StillList::keyPressEvent(event);
            if (currentIndex().isValid() && currentIndex().row() != before) Q_EMIT chosen(currentIndex().row());
        } else {
            event->ignore();  // letters are the page's
        }
        return;
    }
    if (event->modifiers() & Qt::ControlModifier)
        Q_EMIT takeWanted(currentIndex().row());
    else
        Q_EMIT chosen(currentIndex().row());
}

void ProofNotes::resizeEvent(QResizeEvent* event) {
    StillList::resizeEvent(event);
    scheduleDelayedItemsLayout();  // what is wrapped wraps anew
}

}  // namespace poquito::desk

#include "desk/proof/moc_proof_notes.moc"
