#pragma once

#include <QFrame>

class QVBoxLayout;

namespace poquito::desk {

/// What stands on the table while a shoot has no shots: ways to begin, and the order of work.
class WelcomeSheet : public QFrame {
    Q_OBJECT
  public:
    explicit WelcomeSheet(QWidget* parent = nullptr);

    void setRecent(const QStringList& paths);

  Q_SIGNALS:
    void shotWanted();
    void openWanted();
    void demoWanted();
    void fileWanted(const QString& path);

  private:
    QVBoxLayout* recent_;
};

}  // namespace poquito::desk
