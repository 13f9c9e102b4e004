#pragma once

#include "desk/pages/station_page.hpp"

#include <vector>

class QCheckBox;

namespace poquito::desk {

class Sentence;
class ToneStrip;

/// The light that is there: how far its window is, what stands before it, what the room gives back, its colour, how
/// long its reading holds.
class DaylightTab : public StationPage {
    Q_OBJECT
  public:
    explicit DaylightTab(Document& document, QWidget* parent = nullptr);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addSource(QLayout* column);
    void addPanel(QLayout* column);
    void addReading(QLayout* column);

    std::vector<QWidget*> windowOnly_;
    std::vector<QWidget*> panelOnly_;
    std::vector<QWidget*> thereOnly_;
    QCheckBox* panel_ = nullptr;
    Sentence* says_ = nullptr;
    ToneStrip* tones_ = nullptr;
};

}  // namespace poquito::desk
