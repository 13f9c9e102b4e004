#pragma once

#include "plan/motion/sway_readings.hpp"

#include <QWidget>

#include <optional>
#include <vector>

class QLabel;
class QLineEdit;
class QPushButton;
class QVBoxLayout;

namespace poquito::desk {

class Document;

/// How steady one's hands are and how far the wind moves a thing, by ten frames of a rule: readings are typed, what
/// follows stands beside them with its spread, and is taken by a click. Only what this shot asks for.
class MeasureSway : public QWidget {
    Q_OBJECT
  public:
    explicit MeasureSway(Document& document, QWidget* parent = nullptr);

    void refresh();
    static bool asks(const Document& document);  // whether this shot asks for any

  private:
    struct Part {
        QWidget* all = nullptr;
        QLineEdit* readings = nullptr;
        QLabel* result = nullptr;
        QPushButton* use = nullptr;
    };
    Part addPart(QVBoxLayout* column, const char* name, const QString& heading, const QString& how);
    std::optional<plan::MeasuredSway> measured(const Part& part) const;
    void say(const Part& part, const std::optional<plan::MeasuredSway>& sway, const QString& of);
    void useAlong();
    void useAcross();
    void useWind();
    void keepHold();

    Document& document_;
    Part along_, across_, wind_;
    QLineEdit* lean_ = nullptr;
    QLineEdit* swings_ = nullptr;
    QLineEdit* seconds_ = nullptr;
    QLineEdit* holdName_ = nullptr;
    QPushButton* keep_ = nullptr;
    int frames_ = 0;  // that the hands were last measured by
};

}  // namespace poquito::desk
