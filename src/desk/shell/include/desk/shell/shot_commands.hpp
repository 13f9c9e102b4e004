#pragma once

#include "desk/session/document.hpp"
#include "desk/session/search.hpp"

#include <QObject>

#include <optional>
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
    /// Remedy after remedy, until none is left: looked for aside, and taken where the shot is still as it was.
    void putRight();
    /// To the settings prepared for the other light, sun or cloud; prepares them, aside, where nothing is.
    void switchLight();
    /// Whether something is looked for aside.
    bool isLooking() const { return righting_.isRunning() || preparing_.isRunning(); }
    void step(int by) { document_.select(document_.current() + by); }

  Q_SIGNALS:
    void added();
    void problemFound(const QString& problem);
    void told(const QString& news);

  private:
    /// Looks for something of the selected shot as it is now. What is found of another is not taken.
    template <class Found, class Find>
    void ask(Search<Found>& search, const Find& find);
    bool isAsAsked() const;
    void switchTo(const std::optional<shoot::OtherLight>& other);

    Document& document_;
    std::string wanted_;  // code of the note whose remedy was asked for before it was known
    std::optional<shoot::Shot> asked_;
    Search<shoot::Shot> righting_;
    Search<std::optional<shoot::OtherLight>> preparing_;
};

}  // namespace poquito::desk
