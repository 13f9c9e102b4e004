#pragma once

#include <QWidget>

class QCheckBox;
class QComboBox;

namespace poquito::desk {

class Document;
class FinderView;
class LoupeView;

/// Finder, loupe, and what is drawn over the frame.
class FinderPanel : public QWidget {
    Q_OBJECT
  public:
    explicit FinderPanel(Document& document, QWidget* parent = nullptr);

    void refresh();
    FinderView* finder() const { return finder_; }

    /// The frame at 1920 pixels as PNG with the plan in it, written in the background.
    void savePicture(const QString& path);

  Q_SIGNALS:
    void benchWanted();
    void problemFound(const QString& problem);
    void saved(const QString& path);

  protected:
    void resizeEvent(QResizeEvent* event) override;

  private:
    void showShape();
    void addOverlays(QLayout* column);
    void showOverlays();

    Document& document_;
    FinderView* finder_;
    LoupeView* loupe_;
    QWidget* side_;
    QComboBox* shape_ = nullptr;
    QCheckBox* path_ = nullptr;  // where something flies
    class PictureQueue* saving_;
};

}  // namespace poquito::desk
