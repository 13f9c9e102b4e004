#pragma once

#include "advice/proposals/proposals.hpp"
#include "desk/session/picture_queue.hpp"

#include <QImage>
#include <QWidget>

#include <memory>

namespace poquito::desk {

class Document;

/// The whole plans of a shot as rows, best first: its picture, settings, what is kept of each quality, what it gives
/// up. Found and rendered away from the interface thread; a click takes one.
class ProposalsView : public QWidget {
    Q_OBJECT
  public:
    explicit ProposalsView(Document& document, QWidget* parent = nullptr);

    static constexpr int side_width = 156;  // pixels, of what is kept and the button that takes it

    void refresh();
    const std::vector<advice::Proposal>& plans() const { return plans_; }
    QRectF cardRect(std::size_t index) const;
    bool isSettled() const { return queue_.isIdle(); }
    /// What the shot is set to already.
    std::optional<std::size_t> taken() const;

    QSize minimumSizeHint() const override { return {300, 110}; }
    QSize sizeHint() const override;

  Q_SIGNALS:
    void found(const QString& why);  // for this subject and place

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void leaveEvent(QEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void showEvent(QShowEvent* event) override;

  private:
    /// In a row: the picture, name and settings, what it gives up, and bars and button at the right.
    struct Places {
        QRectF picture, head, sentences, side;
    };
    Places placesOf(std::size_t index) const;
    bool isRoomy() const;
    double rowHeight() const;
    void paintCard(QPainter& painter, std::size_t index) const;
    static void paintHead(QPainter& painter, const QRectF& head, const advice::Proposal& plan, const QColor& quiet);
    void paintSentences(QPainter& painter, const QRectF& place, std::size_t index) const;
    static void paintKept(QPainter& painter, const QRectF& side, const advice::Proposal& plan, const QColor& quiet);
    QString barTip(std::size_t index, QPointF at) const;
    bool isCurrent() const;  // the plans are those of the selected shot as it is
    void take(std::size_t index);
    QString reason() const;

    Document& document_;
    std::vector<advice::Proposal> plans_;
    std::shared_ptr<const void> of_;  // the shoot they are of,
    int ofShot_ = -1;                 // and the shot of it
    std::vector<QImage> pictures_;
    std::size_t marked_ = 0;
    int hovered_ = -1;
    PictureQueue queue_;
};

}  // namespace poquito::desk
