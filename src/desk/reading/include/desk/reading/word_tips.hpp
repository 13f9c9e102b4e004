#pragma once

#include <QObject>
#include <QPoint>

#include <optional>

class QWidget;

namespace poquito::desk {

/// Explains the words of the trade where they stand: the tip of whatever carries one says what it means, below what it
/// says of itself. Hears the whole application.
class WordTips : public QObject {
    Q_OBJECT
  public:
    explicit WordTips(QObject* parent);

    /// What a person reads on it: its lettering, else its name; of a list the row at that place, or the current one.
    static QString lettering(const QWidget& widget, std::optional<QPoint> at);

    /// The words of what has the keys, as a tip at it; false: it has none.
    static bool explain(QWidget* focused);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
};

}  // namespace poquito::desk
