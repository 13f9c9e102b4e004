#pragma once

#include "desk/session/document.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/choice_chips.hpp"
#include "desk/toolkit/quantity_field.hpp"

#include <QWidget>

#include <functional>
#include <string>
#include <vector>

class QCheckBox;
class QPushButton;
class QComboBox;
class QGridLayout;
class QHBoxLayout;
class QLabel;
class QVBoxLayout;

namespace poquito::desk {

class ColourField;
class LineField;

/// A sheet that edits one part of the selected shot. Controls are bound with a getter and a setter; the page refreshes
/// all of them when the shoot changes and turns what a person does into edits.
class StationPage : public QWidget {
    Q_OBJECT
  public:
    explicit StationPage(Document& document, QWidget* parent = nullptr);

    /// Shows the selected shot; nothing to do where there is none.
    void refresh();

  protected:
    using Shot = shoot::Shot;
    using Options = std::vector<std::pair<std::string, std::string>>;  // id and name

    /// The page from left to right: columns of controls, then a drawing. `share` of the spare width; 0: none of it.
    QVBoxLayout* addColumn(int share);
    void addDrawing(QWidget* drawing, int share);
    void setShare(QWidget* drawing, int share);  // of one that was added

    /// A heading with room for buttons at its end.
    QHBoxLayout* addHeading(QVBoxLayout* column, const QString& heading);

    /// Two columns, label and control, that rows are added to. Made with a heading.
    QGridLayout* addGroup(QLayout* parent, const QString& heading);

    /// A field with its label that is not about the shot: whoever adds it shows and takes its value.
    QuantityField* addField(QGridLayout* group, const Caption& caption, Quantity quantity);
    /// A line of text in such a row; `edited` with each key.
    LineField* addLine(QGridLayout* group, const Caption& caption, const std::function<void(const QString&)>& edited);
    QuantityField* addQuantity(QGridLayout* group, const Caption& caption, Quantity quantity,
                               std::function<double(const Shot&)> get, std::function<void(Shot&, double)> set);
    /// One that stands on a drawing, where its number belongs; the drawing says what it is.
    QuantityField* addQuantityOn(QWidget* drawing, const Caption& caption, Quantity quantity,
                                 std::function<double(const Shot&)> get, std::function<void(Shot&, double)> set);
    QComboBox* addChoice(QGridLayout* group, const Caption& caption, std::function<Options(const gear::Kit&)> options,
                         std::function<std::string(const Shot&)> get,
                         std::function<void(Shot&, const std::string&)> set);
    ColourField* addColour(QGridLayout* group, const Caption& caption,
                           std::function<std::optional<text::Colour>(const Shot&)> get,
                           std::function<void(Shot&, const std::optional<text::Colour>&)> set);
    QCheckBox* addCheck(QGridLayout* group, const Caption& caption, std::function<bool(const Shot&)> get,
                        std::function<void(Shot&, bool)> set);
    ChoiceChips* addChips(QGridLayout* group, const Caption& caption, std::function<Options(const gear::Kit&)> options,
                          std::function<std::vector<std::string>(const Shot&)> get,
                          std::function<void(Shot&, const std::vector<std::string>&)> set);

    /// Called by refresh with the selected shot.
    virtual void showShot(const Shot& shot, const plan::Report& report) = 0;

    /// A row's control and its label show or hide together.
    static void setRowVisible(QWidget* control, bool visible);
    static void setRowEnabled(QWidget* control, bool enabled);

    /// The control of a group takes the whole width; the group's heading stands for its label.
    static void spanRow(QGridLayout* group, QWidget* control);

    Document& document() { return document_; }

  private:
    void addRow(QGridLayout* group, const Caption& caption, QWidget* control);
    void bindQuantity(QuantityField* field, const QString& label, std::function<double(const Shot&)> get,
                      std::function<void(Shot&, double)> set);

    Document& document_;
    QHBoxLayout* row_;
    std::vector<std::function<void(const Shot&)>> bindings_;
};

}  // namespace poquito::desk
