#pragma once

#include <QWidget>

class QComboBox;
class QPushButton;

namespace poquito::desk {

class LogDesk;
class ReviewPage;

/// The last day of this shoot, or another one, on a page that is printed as it stands.
class ReviewLeaf : public QWidget {
    Q_OBJECT
  public:
    explicit ReviewLeaf(LogDesk& desk, QWidget* parent = nullptr);
    void refresh();

  private:
    LogDesk& desk_;
    QComboBox* day_;
    QPushButton* print_;
    ReviewPage* page_;
};

}  // namespace poquito::desk
