#pragma once

#include "desk/toolkit/note_card.hpp"
#include "desk/toolkit/still_list.hpp"
#include "proof/notes.hpp"

#include <QAbstractListModel>

#include <vector>

namespace poquito::desk {

/// What the frames show, a card a note; a click goes where it is, its link takes what is missing.
class ProofNotes : public StillList {
    Q_OBJECT
  public:
    explicit ProofNotes(QWidget* parent = nullptr);

    void setNotes(const std::vector<proof::Note>& notes);
    const std::vector<proof::Note>& notes() const { return notes_; }
    QRect linkRect(int row) const;

  Q_SIGNALS:
    void chosen(int note);
    void takeWanted(int note);

  protected:
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    class Model;
    class Delegate;
    Model* model_;
    std::vector<proof::Note> notes_;
};

}  // namespace poquito::desk
