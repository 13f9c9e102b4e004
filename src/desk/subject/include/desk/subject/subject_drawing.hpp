#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class FrameDrawing;

/// The subject drawn, with its numbers typed where they stand. A button in its corner gives way to the bench.
class SubjectDrawing : public StationPage {
    Q_OBJECT
  public:
    explicit SubjectDrawing(Document& document, QWidget* parent = nullptr);

  Q_SIGNALS:
    void benchWanted();

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addSizes();
    void addPlace();
    void addAttitude();

    FrameDrawing* frame_;
};

}  // namespace poquito::desk
