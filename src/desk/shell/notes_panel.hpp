#pragma once

#include "advice/advice.hpp"

#include <QScrollArea>

#include <string>
#include <vector>

class QPushButton;

namespace poquito::desk {

class Document;
class FoldedLine;
class NoteCard;

/// What Poquito has to say about the shot, worst first, each with the button that would mend it.
class NotesPanel : public QScrollArea {
    Q_OBJECT
  public:
    explicit NotesPanel(Document& document, QWidget* parent = nullptr);

    /// Height that shows every note without scrolling.
    int wantedHeight() const { return wantedHeight_; }

  Q_SIGNALS:
    void wantedHeightChanged();

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    void refresh();
    void arrange();
    void apply(const std::string& code);

    Document& document_;
    QWidget* sheet_;
    QPushButton* right_;
    FoldedLine* usual_;
    bool unfolded_ = false;
    std::vector<advice::Note> shown_;
    std::string wanted_;  // code of the note whose remedy was asked for before it was known
    std::vector<NoteCard*> cards_;
    int wantedHeight_ = 0;
};

}  // namespace poquito::desk
