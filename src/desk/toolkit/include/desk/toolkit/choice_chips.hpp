#pragma once

#include <QWidget>

#include <string>
#include <utility>
#include <vector>

class QToolButton;

namespace poquito::desk {

/// Pieces that are either on or off, as a row of chips that wraps. Chips that are on keep the order they were put on
/// in.
class ChoiceChips : public QWidget {
    Q_OBJECT
  public:
    explicit ChoiceChips(QWidget* parent = nullptr);

    /// `options`: id and name; `on`: ids.
    void show(const std::vector<std::pair<std::string, std::string>>& options, const std::vector<std::string>& on);

    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override { return arrange(width, false); }
    QSize sizeHint() const override;
    QSize minimumSizeHint() const override;

  Q_SIGNALS:
    void chosen(const std::vector<std::string>& ids);
    /// A chip is held outside its place, and let go of there; in coordinates of the screen.
    void chipDragged(const std::string& id, QPoint at);
    void chipDropped(const std::string& id, QPoint at);

  protected:
    bool eventFilter(QObject* watched, QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

  private:
    int arrange(int width, bool place) const;

    std::vector<std::pair<std::string, std::string>> options_;
    std::vector<std::string> on_;
    std::vector<QToolButton*> chips_;
    bool dragging_ = false;
};

}  // namespace poquito::desk
