#pragma once

#include "advice/worth/judgement.hpp"
#include "desk/session/shot_task.hpp"

#include <QWidget>

namespace poquito::desk {

/// One frame or a stack: the schools side by side with what each costs, the one that suits the shot marked, and why.
/// A click takes one; to disagree is to take another.
class JudgementStrip : public QWidget {
    Q_OBJECT
  public:
    explicit JudgementStrip(Document& document, QWidget* parent = nullptr);

    void refresh();
    /// As last found, away from the interface thread; see isSettled.
    const std::optional<advice::Judgement>& judgement() const { return judgement_; }
    bool isSettled() const { return judged_.isCurrent(); }
    QRectF cardRect(std::size_t index) const;
    QString reason() const;

    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;
    QSize sizeHint() const override { return {500, heightForWidth(700)}; }
    QSize minimumSizeHint() const override { return {300, heightForWidth(700)}; }

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void showEvent(QShowEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    void paintCard(QPainter& painter, std::size_t index) const;
    void take(std::size_t index);
    /// What the shot is set to now.
    std::optional<std::size_t> taken() const;
    int columns(int width) const;
    void takeHeight();
    void show();

    Document& document_;
    ShotTask<std::optional<advice::Judgement>> judged_;
    std::optional<advice::Judgement> judgement_;
    std::size_t marked_ = 0;
};

}  // namespace poquito::desk
