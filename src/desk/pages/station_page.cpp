#include "desk/pages/station_page.hpp"

#include "desk/text/to_qt.hpp"
#include "desk/toolkit/colour_field.hpp"
#include "desk/toolkit/line_field.hpp"
#include "desk/toolkit/theme.hpp"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QSignalBlocker>
#include <QStyleOptionComboBox>
#include <QStylePainter>

namespace poquito::desk {
namespace {

/// A choice that says by dots where its text goes on.
class ChoiceBox : public QComboBox {
  public:
    using QComboBox::QComboBox;

  protected:
    void paintEvent(QPaintEvent*) override {
        QStylePainter painter(this);
        QStyleOptionComboBox option;
        initStyleOption(&option);
        painter.drawComplexControl(QStyle::CC_ComboBox, option);
        const int width =
            style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxEditField, this).width() - 4;
        option.currentText = fontMetrics().elidedText(option.currentText, Qt::ElideRight, width);
        painter.drawControl(QStyle::CE_ComboBoxLabel, option);
    }
};

}  // namespace

StationPage::StationPage(Document& document, QWidget* parent)
    : QWidget(parent), document_(document), row_(new QHBoxLayout(this)) {
    row_->setContentsMargins(0, 0, 0, 0);
    row_->setSpacing(14);
}

QVBoxLayout* StationPage::addColumn(int share) {
    auto* column = new QVBoxLayout;
    column->setSpacing(8);
    row_->addLayout(column, share);
    return column;
}

void StationPage::addDrawing(QWidget* drawing, int share) { row_->addWidget(drawing, share); }

void StationPage::setShare(QWidget* drawing, int share) { row_->setStretchFactor(drawing, share); }

QHBoxLayout* StationPage::addHeading(QVBoxLayout* column, const QString& heading) {
    auto* bar = new QHBoxLayout;
    auto* title = new QLabel(heading, this);
    title->setFont(textFont(12, QFont::DemiBold));
    title->setMinimumHeight(26);  // as high as a button, so that headings side by side line up
    bar->addWidget(title);
    bar->addStretch();
    column->addLayout(bar);
    return bar;
}

void StationPage::refresh() {
    const Shot* shot = document_.shot();
    setEnabled(shot != nullptr);
    if (!shot) return;
    for (const auto& binding : bindings_) binding(*shot);
    showShot(*shot, *document_.report());
}

QGridLayout* StationPage::addGroup(QLayout* parent, const QString& heading) {
    auto* box = new QWidget(this);
    auto* grid = new QGridLayout(box);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setHorizontalSpacing(8);
    grid->setVerticalSpacing(4);
    grid->setColumnStretch(1, 1);
    grid->setColumnMinimumWidth(0, 76);  // controls of the groups in a column line up
    if (!heading.isEmpty()) {
        auto* title = new QLabel(heading, box);
        title->setFont(textFont(12, QFont::DemiBold));
        grid->addWidget(title, 0, 0, 1, 2);
    }
    parent->addWidget(box);
    return grid;
}

void StationPage::addRow(QGridLayout* group, const Caption& caption, QWidget* control) {
    nameControl(control, caption);
    auto* label = new QLabel(caption.label, group->parentWidget());
    label->setObjectName(QLatin1String(caption.objectName) + QLatin1String("Label"));
    label->setProperty("quiet", true);
    label->setToolTip(caption.tip);
    label->setBuddy(control);
    const int row = group->rowCount();
    group->addWidget(label, row, 0);
    group->addWidget(control, row, 1);
}

void StationPage::setRowVisible(QWidget* control, bool visible) {
    control->setVisible(visible);
    if (auto* label = control->parentWidget()->findChild<QLabel*>(control->objectName() + QLatin1String("Label")))
        label->setVisible(visible);
}

void StationPage::spanRow(QGridLayout* group, QWidget* control) {
    if (auto* label = control->parentWidget()->findChild<QLabel*>(control->objectName() + QLatin1String("Label")))
        label->deleteLater();
    group->addWidget(control, group->rowCount(), 0, 1, 2);
}

void StationPage::setRowEnabled(QWidget* control, bool enabled) {
    control->setEnabled(enabled);
    if (auto* label = control->parentWidget()->findChild<QLabel*>(control->objectName() + QLatin1String("Label")))
        label->setEnabled(enabled);
}

QuantityField* StationPage::addField(QGridLayout* group, const Caption& caption, Quantity quantity) {
    auto* field = new QuantityField(std::move(quantity), group->parentWidget());
    addRow(group, caption, field);
    return field;
}

LineField* StationPage::addLine(QGridLayout* group, const Caption& caption,
                                const std::function<void(const QString&)>& edited) {
    auto* field = new LineField(this);
    addRow(group, caption, field);
    connect(field, &QLineEdit::textEdited, this, edited);
    return field;
}

QuantityField* StationPage::addQuantity(QGridLayout* group, const Caption& caption, Quantity quantity,
                                        std::function<double(const Shot&)> get,
                                        std::function<void(Shot&, double)> set) {
    auto* field = addField(group, caption, std::move(quantity));
    bindQuantity(field, caption.label, std::move(get), std::move(set));
    return field;
}

QuantityField* StationPage::addQuantityOn(QWidget* drawing, const Caption& caption, Quantity quantity,
                                          std::function<double(const Shot&)> get,
                                          std::function<void(Shot&, double)> set) {
    auto* field = new QuantityField(std::move(quantity), drawing);
    nameControl(field, caption);
    bindQuantity(field, caption.label, std::move(get), std::move(set));
    return field;
}

void StationPage::bindQuantity(QuantityField* field, const QString& label, std::function<double(const Shot&)> get,
                               std::function<void(Shot&, double)> set) {
    bindings_.emplace_back([field, get = std::move(get)](const Shot& shot) { field->setValue(get(shot)); });
    connect(field, &QuantityField::valueEdited, this, [this, field, label, set = std::move(set)](double value) {
        const EditLabel step{tr("Change %1").arg(label.toLower()),
                             QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit())};
        document_.editShot(step, [&](Shot& shot) { set(shot, value); });
    });
}

QComboBox* StationPage::addChoice(QGridLayout* group, const Caption& caption,
                                  std::function<Options(const gear::Kit&)> options,
                                  std::function<std::string(const Shot&)> get,
                                  std::function<void(Shot&, const std::string&)> set) {
    auto* box = new ChoiceBox(group->parentWidget());
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(4);
    box->setFocusPolicy(Qt::StrongFocus);
    addRow(group, caption, box);
    bindings_.emplace_back(
        [this, box, tip = caption.tip, options = std::move(options), get = std::move(get)](const Shot& shot) {
            const QSignalBlocker quiet(box);
            const auto wanted = options(document_.kit());
            bool same = box->count() == static_cast<int>(wanted.size());
            for (int i = 0; same && i < box->count(); ++i) {
                const auto& [id, name] = wanted[static_cast<std::size_t>(i)];
                same = box->itemData(i).toString().toStdString() == id && box->itemText(i).toStdString() == name;
            }
            if (!same) {
                box->clear();
                for (const auto& [id, name] : wanted) box->addItem(toQt(name), toQt(id));
            }
            box->setCurrentIndex(box->findData(toQt(get(shot))));
            box->setToolTip(QStringLiteral("%1\n%2").arg(box->currentText(), tip));  // a narrow box cuts the name
        });
    connect(box, &QComboBox::activated, this, [this, box, label = caption.label, set = std::move(set)](int index) {
        const auto id = box->itemData(index).toString().toStdString();
        document_.editShot({tr("Choose %1").arg(label.toLower())}, [&](Shot& shot) { set(shot, id); });
    });
    return box;
}

ColourField* StationPage::addColour(QGridLayout* group, const Caption& caption,
                                    std::function<std::optional<text::Colour>(const Shot&)> get,
                                    std::function<void(Shot&, const std::optional<text::Colour>&)> set) {
    auto* field = new ColourField(group->parentWidget());
    addRow(group, caption, field);
    bindings_.emplace_back([field, get = std::move(get)](const Shot& shot) { field->setColour(get(shot)); });
    connect(field, &ColourField::colourEdited, this,
            [this, field, label = caption.label, set = std::move(set)](const std::optional<text::Colour>& colour) {
                document_.editShot({tr("Change %1").arg(label.toLower()),
                                    QStringLiteral("%1#%2").arg(field->objectName()).arg(field->visit())},
                                   [&](Shot& shot) { set(shot, colour); });
            });
    return field;
}

QCheckBox* StationPage::addCheck(QGridLayout* group, const Caption& caption, std::function<bool(const Shot&)> get,
                                 std::function<void(Shot&, bool)> set) {
    auto* box = new QCheckBox(caption.label, group->parentWidget());
    nameControl(box, caption);
    group->addWidget(box, group->rowCount(), 0, 1, 2);
    bindings_.emplace_back([box, get = std::move(get)](const Shot& shot) {
        const QSignalBlocker quiet(box);
        box->setChecked(get(shot));
    });
    connect(box, &QCheckBox::clicked, this, [this, label = caption.label, set = std::move(set)](bool on) {
        document_.editShot({tr("Change %1").arg(label.toLower())}, [&](Shot& shot) { set(shot, on); });
    });
    return box;
}

ChoiceChips* StationPage::addChips(QGridLayout* group, const Caption& caption,
                                   std::function<Options(const gear::Kit&)> options,
                                   std::function<std::vector<std::string>(const Shot&)> get,
                                   std::function<void(Shot&, const std::vector<std::string>&)> set) {
    auto* chips = new ChoiceChips(group->parentWidget());
    addRow(group, caption, chips);
    bindings_.emplace_back([this, chips, options = std::move(options), get = std::move(get)](const Shot& shot) {
        chips->show(options(document_.kit()), get(shot));
    });
    connect(chips, &ChoiceChips::chosen, this,
            [this, label = caption.label, set = std::move(set)](const std::vector<std::string>& ids) {
                document_.editShot({tr("Choose %1").arg(label.toLower())}, [&](Shot& shot) { set(shot, ids); });
            });
    return chips;
}

}  // namespace poquito::desk

#include "desk/pages/moc_station_page.moc"
