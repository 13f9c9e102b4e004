#pragma once

#include <QDialog>

class QLabel;
class QLineEdit;
class QListView;
class QStringListModel;
class QTextBlock;
class QTextBrowser;

namespace poquito::desk {

/// The handbook that ships inside the application: chapters on the left, a click or Enter goes there; words are looked
/// for as they are typed.
class HandbookWindow : public QDialog {
    Q_OBJECT
  public:
    explicit HandbookWindow(QWidget* parent = nullptr);

    QString chapterShown() const;
    /// A page by its id, or the chapter about what has that object name.
    void goTo(const QString& place);

  protected:
    void changeEvent(QEvent* event) override;

  private:
    void load();
    void goToChapter(int row);
    void goToHeading(const QString& heading);
    void goToBlock(const QTextBlock& block);
    void find(const QString& words, bool next);
    void markChapter();

    QStringListModel* chapters_ = nullptr;
    QListView* contents_ = nullptr;
    QLineEdit* search_ = nullptr;
    QLabel* found_ = nullptr;
    QTextBrowser* text_ = nullptr;
};

}  // namespace poquito::desk
