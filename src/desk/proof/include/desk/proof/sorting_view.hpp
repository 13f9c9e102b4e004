#pragma once

#include "desk/session/proof_controller.hpp"

#include <QWidget>

class QComboBox;
class QLabel;
class QListView;
class QPushButton;
class QToolButton;

namespace poquito::desk {

class Document;
class FramePictures;

/// A folder of many stacks and bursts, a row each, the whole ones first: what became of it and why, and which shot it
/// is of. Keys go through hundreds: K keeps, R is to be taken again, A sets aside, Enter opens it large.
class SortingView : public QWidget {
    Q_OBJECT
  public:
    SortingView(Document& document, ProofController& controller, FramePictures& pictures, QWidget* parent = nullptr);

    void refresh();

  Q_SIGNALS:
    void openWanted(int sequence);  // its id
    void verdictGiven(int sequence, bool keep);
    void left();

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    bool eventFilter(QObject* watched, QEvent* event) override;

  private:
    class Model;
    class Delegate;
    int row() const;
    const ProofController::SortedSequence* current() const;
    void assign(int choice);
    void showChosen();
    void give(bool keep);
    void setAside();
    bool take(const QKeyEvent& event);

    Document& document_;
    ProofController& controller_;
    QLabel* title_;
    QLabel* progress_;
    QToolButton* stop_;
    QListView* list_;
    Model* model_;
    int chosen_ = 0;  // id of a sequence
    QComboBox* shot_;
    QPushButton *open_, *keep_, *redo_, *aside_;
};

}  // namespace poquito::desk
