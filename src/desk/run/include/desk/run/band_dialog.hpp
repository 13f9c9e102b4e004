#pragma once

#include <QDialog>

#include <array>
#include <optional>

class QLabel;
class QPushButton;

namespace poquito::desk {

class QuantityField;
class RulerView;

/// Two pictures of a rule that leans back, the first and the last of a bracket, and where each is sharp: how far focus
/// went between them.
class BandDialog : public QDialog {
    Q_OBJECT
  public:
    /// The width of the frame on the sensor, mm, and the magnification of the whole train.
    BandDialog(double frameWidth, double magnification, QWidget* parent = nullptr);

    /// Without questions; what went wrong is said. True: the picture is there, marked where it seems sharp.
    bool openPicture(std::size_t which, const QString& path);

    std::optional<double> travel() const;  // mm, once both are marked

  private:
    void refresh();
    void ask(std::size_t which);

    double frameWidth_, magnification_;
    std::array<RulerView*, 2> views_{};
    QuantityField* tilt_ = nullptr;
    QLabel* result_ = nullptr;
    QPushButton* take_ = nullptr;
};

}  // namespace poquito::desk
