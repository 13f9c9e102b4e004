#pragma once

#include "log/protocol.hpp"

#include <QWidget>

#include <vector>

class QComboBox;
class QPushButton;

namespace poquito::desk {

class LogDesk;
class ProtocolPage;

/// Series that are to look the same for months, one at a time, on a page that is printed for the binder.
class ProtocolsLeaf : public QWidget {
    Q_OBJECT
  public:
    explicit ProtocolsLeaf(LogDesk& desk, QWidget* parent = nullptr);
    void refresh();
    const std::vector<log::Protocol>& protocols() const { return protocols_; }

  private:
    void show(std::vector<log::Protocol> protocols);

    LogDesk& desk_;
    QComboBox* series_;
    QPushButton* print_;
    ProtocolPage* page_;
    std::vector<log::Protocol> protocols_;
};

}  // namespace poquito::desk
