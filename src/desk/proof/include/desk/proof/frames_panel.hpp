#pragma once

#include "desk/session/frame_pictures.hpp"
#include "desk/session/picture_queue.hpp"

#include <QWidget>

#include <map>
#include <memory>
#include <string>

class QLabel;
class QStackedWidget;
class QToolButton;
class QVBoxLayout;

namespace poquito::desk {

class Document;
class FrameStrip;
class FrameView;
class HeldFrame;
class ProofController;
class Sentence;
struct ProofLook;

/// The frame that is looked at, large; what else it can be seen as; and all of them in a row. Before there are any, the
/// plan's own picture, and where frames may come from.
class FramesPanel : public QWidget {
    Q_OBJECT
  public:
    enum class Show { frame, plan, sharp, depth, composite };

    FramesPanel(Document& document, ProofController& controller, QWidget* parent = nullptr);

    void refresh();
    std::size_t current() const;
    void goTo(std::size_t frame);
    void goTo(std::size_t frame, const QRectF& place);  // px of the file as it lies
    /// What is marked on the frame; empty: nothing.
    void mark(int note);
    void setShow(Show show);
    Show shows() const { return show_; }
    FrameView* view() const { return view_; }
    HeldFrame* held() const { return held_; }
    void holdBeside(bool hold);  // the frame that is looked at, beside the next ones
    FramePictures& pictures() { return pictures_; }
    /// All that was asked for is shown.
    bool isSettled() const { return queue_.isIdle() && pictures_.isIdle(); }

    /// A key of the page; false: not for it.
    bool take(QKeyEvent* event);

  Q_SIGNALS:
    void currentChanged(std::size_t frame);
    void framesWanted();  // by a dialog
    void folderWanted();  // to be watched
    void sortingWanted();

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    void buildHead(QVBoxLayout* column);
    void buildFoot(QVBoxLayout* column);
    void showPicture();
    void showMarks();
    std::optional<double> shape() const;  // of the delivered picture
    void showWords();
    void askPlan();
    void askComposite();
    const ProofLook* look() const;

    Document& document_;
    ProofController& controller_;
    FramePictures pictures_;
    std::string shot_;
    std::map<std::string, std::size_t> currents_;  // by shot
    Show show_ = Show::frame;
    int note_ = -1;
    bool hadFrames_ = false;
    QLabel *title_, *progress_;
    Sentence* subtitle_;
    std::map<Show, QToolButton*> shows_;
    FrameView* view_;
    HeldFrame* held_;
    QToolButton* hold_;
    QStackedWidget* foot_;
    FrameStrip* strip_;
    Sentence* invitation_;
    QToolButton *sorted_, *cancel_, *runs_, *watch_, *again_;
    QImage plan_, composite_;
    std::shared_ptr<const void> planOf_, compositeOf_;  // assessment, inspection
    PictureQueue queue_;
};

}  // namespace poquito::desk
