#pragma once

#include <QString>
#include <QWidget>

class QLabel;

namespace poquito::desk {

/// Where what went wrong is said, above whatever is shown; hidden while nothing has.
class MessageBar : public QWidget {
    Q_OBJECT
  public:
    explicit MessageBar(QWidget* parent = nullptr);
    void say(const QString& problem);

  private:
    QLabel* text_;
};

}  // namespace poquito::desk
