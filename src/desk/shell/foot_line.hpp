#pragma once

#include <QWidget>

namespace poquito::desk {

class Document;

/// The running cost along the lower edge: this shot on the left, the whole shoot on the right; for a while, a message.
class FootLine : public QWidget {
    Q_OBJECT
  public:
    explicit FootLine(const Document& document, QWidget* parent = nullptr);

    void say(const QString& message);
    QString shotText() const;
    QString shootText() const;
    QSize sizeHint() const override { return {400, 27}; }

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    const Document& document_;
    QString message_;
};

}  // namespace poquito::desk
