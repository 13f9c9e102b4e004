#pragma once

#include <QScrollArea>

#include <vector>

class QVBoxLayout;

namespace poquito::desk {

class Document;
class NoteCard;

/// What Poquito has to say about the shot, worst first, each with the button that would mend it.
class NotesPanel : public QScrollArea {
    Q_OBJECT
  public:
    explicit NotesPanel(Document& document, QWidget* parent = nullptr);

    /// Height that shows every note without scrolling.
    int wantedHeight() const;

  Q_SIGNALS:
    void wantedHeightChanged();

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    void refresh();
    void apply(int note);

    Document& document_;
    QWidget* sheet_;
    QVBoxLayout* layout_;
    std::vector<NoteCard*> cards_;
};

}  // namespace poquito::desk
