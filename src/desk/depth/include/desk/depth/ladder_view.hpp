#pragma once

#include "advice/worth/ladder.hpp"
#include "desk/session/picture_queue.hpp"
#include "render/scene.hpp"

#include <QImage>
#include <QWidget>

#include <map>

class QComboBox;

namespace poquito::desk {

class Document;

/// The same frame at a row of values, each with what it gives and costs. A click takes one; the row goes out as a
/// contact sheet.
class LadderView : public QWidget {
    Q_OBJECT
  public:
    explicit LadderView(Document& document, QWidget* parent = nullptr);

    void refresh();
    const std::vector<advice::Rung>& rungs() const { return rungs_; }
    /// Where on the sensor the second row of pictures looks, mm.
    void setLoupe(imaging::Place place);
    QRectF rungRect(std::size_t index) const;
    bool isSettled() const { return queue_.isIdle() && sheetQueue_.isIdle(); }

    /// Renders the contact sheet and gives it to `done` on the interface thread.
    void makeSheet(const std::function<void(const QImage&)>& done);

    QSize minimumSizeHint() const override { return {300, 150}; }

  Q_SIGNALS:
    void sheetWanted();

  protected:
    void paintEvent(QPaintEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void showEvent(QShowEvent* event) override;

  private:
    struct Pictures {
        QImage frame, loupe;
    };
    advice::LadderOf of() const;
    void take(std::size_t index);
    static Pictures picture(const gear::Kit& kit, const advice::Rung& rung, int width, double lighter,
                            imaging::Place place, bool close);
    double frameAspect() const;
    double brightened(const advice::Rung& rung) const;

    Document& document_;
    QComboBox* kind_;
    std::vector<advice::Rung> rungs_;
    std::vector<Pictures> pictures_;
    imaging::Place loupe_;
    PictureQueue queue_, sheetQueue_;
};

}  // namespace poquito::desk
