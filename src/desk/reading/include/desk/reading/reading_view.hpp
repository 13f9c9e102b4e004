#pragma once

#include "handbook/handbook.hpp"

#include <QFrame>

class QLabel;
class QTextBrowser;
class QToolButton;

namespace poquito::desk {

class Document;

/// A page of the handbook beside its station, with the drawing and the numbers of the selected shot, the words that
/// stand in it, and those of whatever has the keys.
class ReadingView : public QFrame {
    Q_OBJECT
  public:
    explicit ReadingView(const Document& document, QWidget* parent = nullptr);

    void show(const handbook::Page& page);
    const handbook::Page* page() const { return page_; }
    /// What has the keys: its words are explained on top.
    void explain(const QWidget* focused);
    void refresh();

  Q_SIGNALS:
    void leaveWanted();                        // back to the numbers
    void handbookWanted(const QString& page);  // all of it, at that page

  protected:
    void keyPressEvent(QKeyEvent* event) override;
    void changeEvent(QEvent* event) override;

  private:
    void follow(const QString& link);

    const Document& document_;
    const handbook::Page* page_ = nullptr;
    QLabel* title_;
    QLabel* here_;
    QWidget* drawing_;
    QTextBrowser* text_;
    QString shown_;
};

}  // namespace poquito::desk
