#pragma once

#include <QWidget>

namespace poquito::desk {

/// A quiet remark that wraps within room for a few lines. Unlike a wrapping label it never makes its surroundings lay
/// themselves out anew, so it may change with every edit.
class Sentence : public QWidget {
    Q_OBJECT
  public:
    explicit Sentence(int lines, QWidget* parent = nullptr);

    void setText(const QString& text);
    QString text() const { return text_; }
    QSize sizeHint() const override;

  protected:
    void paintEvent(QPaintEvent* event) override;

  private:
    int lines_;
    QString text_;
};

}  // namespace poquito::desk
