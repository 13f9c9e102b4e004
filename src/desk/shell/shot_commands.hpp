#pragma once

#include "desk/shell/document.hpp"

#include <QObject>

namespace poquito::desk {

/// What is done to the list of shots.
class ShotCommands : public QObject {
    Q_OBJECT
  public:
    explicit ShotCommands(Document& document, QObject* parent = nullptr) : QObject(parent), document_(document) {}

    void add();  // behind the selected one
    void duplicate();
    void remove();
    void move(int by);
    void step(int by) { document_.select(document_.current() + by); }

  Q_SIGNALS:
    void added();
    void problemFound(const QString& problem);
    void told(const QString& news);

  private:
    Document& document_;
};

}  // namespace poquito::desk
