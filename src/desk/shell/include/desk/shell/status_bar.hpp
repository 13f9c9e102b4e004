#pragma once

#include "advice/advice.hpp"

#include <QTimer>
#include <QWidget>

#include <memory>

namespace poquito::desk {

class Document;

/// The running cost along the lower edge: this shot on the left, the whole shoot on the right; for a while, a message,
/// or what the last edit changed elsewhere: "depth 0.25 mm to 0.18 mm".
class StatusBar : public QWidget {
    Q_OBJECT
  public:
    explicit StatusBar(const Document& document, QWidget* parent = nullptr);

    void say(const QString& message);
    QString shotText() const;
    QString shootText() const;
    QSize sizeHint() const override { return {400, 27}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    void compare();

    const Document& document_;
    QString message_;
    std::shared_ptr<const advice::Assessment> before_;  // as the shot was
    std::shared_ptr<const advice::Assessment> since_;   // as it was before a run of edits; null: none goes on
    QTimer quiet_;
};

}  // namespace poquito::desk
