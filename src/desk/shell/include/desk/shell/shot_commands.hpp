#pragma once

#include "desk/session/document.hpp"

#include <QObject>

#include <string>

namespace poquito::desk {

/// What is done to the list of shots.
class ShotCommands : public QObject {
    Q_OBJECT
  public:
    explicit ShotCommands(Document& document, QObject* parent = nullptr);

    void add();  // behind the selected one
    void duplicate();
    void remove();
    void move(int by);
    /// Takes the remedy of a note of the selected shot; at once after an edit as soon as it is known.
    void mend(const std::string& code, int way);
    /// Remedy after remedy, until none is left.
    void putRight();
    /// To the settings prepared for the other light, sun or cloud; prepares them where nothing is.
    void switchLight();
    void step(int by) { document_.select(document_.current() + by); }

  Q_SIGNALS:
    void added();
    void problemFound(const QString& problem);
    void told(const QString& news);

  private:
    Document& document_;
    std::string wanted_;  // code of the note whose remedy was asked for before it was known
};

}  // namespace poquito::desk
