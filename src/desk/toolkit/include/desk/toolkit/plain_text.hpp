#pragma once

#include <QObject>
#include <QString>

/// What stands in a file is lettering and never markup: a title with "<img src=...>" in it is shown as it is written.
/// This is the one place that sees to it, for the whole application.
namespace poquito::desk {

/// Labels, message boxes and tips that would guess whether a text is markup do not. A label that is to show markup of
/// our own says so (setTextFormat(Qt::RichText)) and escapes what comes from elsewhere.
class PlainText : public QObject {
    Q_OBJECT
  public:
    explicit PlainText(QObject* application);

    bool eventFilter(QObject* watched, QEvent* event) override;
};

/// As a tip shows it: letter by letter, whatever it looks like.
QString tipText(const QString& text);

}  // namespace poquito::desk
