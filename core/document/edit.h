// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "document/engineedit.h"
#include "document/passageedit.h"
#include "document/plumbing.h"

#include <memory>
#include <span>
#include <string>
#include <type_traits>

namespace mildpath {

// An edit is a value: what was done, not how. Applied to a document it makes a new one; written as
// a line it is the journal.

/// A reading at a position; if one stands there, the new one strikes it and both are kept.
struct EnterReading
{
    Reading reading; ///< id and replaces are filled in when it is applied
    bool operator==(const EnterReading &) const = default;
};
/// Several at once (pasted, imported): all or none.
struct EnterReadings
{
    std::vector<Reading> readings;
    bool operator==(const EnterReadings &) const = default;
};
/// Takes the standing reading at a place back, keeping it struck.
struct WithdrawReading
{
    ReadingPlace place;
    std::string by, at;
    bool operator==(const WithdrawReading &) const = default;
};
struct SetOil
{
    ChosenOil oil;
    bool operator==(const SetOil &) const = default;
};
struct SetUse
{
    std::string key; ///< of recordType<Use>()
    double value;
    bool operator==(const SetUse &) const = default;
};
/// Where the relief valve lets its oil go: one of reliefReturns.
struct SetReliefReturn
{
    std::string to;
    bool operator==(const SetReliefReturn &) const = default;
};
/// Limits of a family; the first one set makes them.
struct SetLimit
{
    std::string kind; ///< family
    std::string key; ///< min_um, max_um or target_um
    double value;
    std::string source {}; ///< whose they are from now on; empty: as they were
    bool operator==(const SetLimit &) const = default;
};
/// A dimension of a circuit element, in the unit of its key.
struct SetElementValue
{
    std::string element;
    std::string key;
    double value;
    bool operator==(const SetElementValue &) const = default;
};
/// A number of a stop, see stopKeys(); absent takes it away.
struct SetStopValue
{
    std::string stop;
    std::string key;
    std::optional<double> value;
    bool operator==(const SetStopValue &) const = default;
};
struct TickFastener
{
    TorqueTick tick; ///< id is filled in when it is applied
    bool operator==(const TickFastener &) const = default;
};
/// A card as it is from now on: found by its id, or added (empty id). What was ticked under another
/// is flagged.
struct PutTorqueCard
{
    TorqueCard card;
    bool operator==(const PutTorqueCard &) const = default;
};
struct DropTorqueCard
{
    std::string card;
    bool operator==(const DropTorqueCard &) const = default;
};
/// Which shells sit in a bearing, and what is stamped for it.
struct FitShells
{
    std::string family, stop;
    FittedShells fitted;
    bool operator==(const FitShells &) const = default;
};
/// A row of the shell stock: found by name, or added.
struct SetShellRow
{
    std::string family;
    ShellStockRow row;
    bool operator==(const SetShellRow &) const = default;
};
/// A class stamped on blocks or cranks: found by name, or added.
struct SetSizeClass
{
    std::string family;
    bool journal = false; ///< of the journal; else of the housing
    SizeClass sizeClass;
    bool operator==(const SetSizeClass &) const = default;
};
struct WeighPart
{
    Weighing weighing; ///< id is filled in when it is applied
    bool operator==(const WeighPart &) const = default;
};
/// What is weighed, and how alike it has to be; absent: it is no longer weighed.
struct SetWeighedPart
{
    std::string part;
    std::optional<WeighedPart> about;
    bool operator==(const SetWeighedPart &) const = default;
};
struct Choose
{
    Choice choice;
    bool operator==(const Choose &) const = default;
};
/// A setting of part temperatures, warm-up or thermometer.
struct SetHeat
{
    std::string key; ///< of recordType<Heat>()
    double value;
    bool operator==(const SetHeat &) const = default;
};
/// What a part is made of.
struct SetMaterial
{
    std::string part; ///< block, crank, rod, main_cap
    std::string material; ///< id; empty for main_cap: as the block
    std::optional<double> fraction {}; ///< main_cap: its share of the bore's growth
    bool operator==(const SetMaterial &) const = default;
};
/// An expansion of one's own; absent: the handbook's again.
struct SetExpansion
{
    std::string material; ///< id, or mainHousing
    std::optional<OwnExpansion> expansion;
    bool operator==(const SetExpansion &) const = default;
};
/// A point of the heated-block log; see addHeatPoint().
struct EnterHeatPoint
{
    HeatPoint point; ///< id is filled in when it is applied
    bool operator==(const EnterHeatPoint &) const = default;
};
struct AddProof
{
    Proof proof; ///< id is filled in when it is applied
    bool operator==(const AddProof &) const = default;
};
/// A number of the engine.
struct SetEngine
{
    std::string key; ///< of recordType<Engine>()
    double value;
    bool operator==(const SetEngine &) const = default;
};
/// An oil of one's own on the list: found by name, or added.
struct KeepOil
{
    ChosenOil oil;
    bool operator==(const KeepOil &) const = default;
};
struct DropOil
{
    std::string name;
    bool operator==(const DropOil &) const = default;
};
struct Rename
{
    std::string name;
    bool operator==(const Rename &) const = default;
};

struct EditKind;
/// What an edit is and does; specialised in the source that owns it (document/editkind.h).
template <class E> const EditKind &editKind();

/// One of the edits above, or of engineedit.h, passageedit.h, plumbing.h, sump.h: a value.
class Edit
{
public:
    template <class E>
    Edit(E edit) requires(!std::is_same_v<E, Edit>)
        : m_kind(&editKind<E>())
        , m_edit(std::make_shared<const E>(std::move(edit)))
    {
    }
    Edit(const EditKind &kind, std::shared_ptr<const void> edit)
        : m_kind(&kind)
        , m_edit(std::move(edit))
    {
    }

    const EditKind &kind() const { return *m_kind; }
    const void *value() const { return m_edit.get(); }
    /// @return null where it is another kind
    template <class E> const E *as() const
    {
        return m_kind == &editKind<E>() ? static_cast<const E *>(m_edit.get()) : nullptr;
    }
    bool operator==(const Edit &other) const;

private:
    const EditKind *m_kind;
    std::shared_ptr<const void> m_edit;
};

/// Several edits as one, all or none: what a list, a table or an import brings.
struct EditAll
{
    std::string name; ///< what the Edit menu says: "12 filter cuts"
    std::vector<Edit> edits; ///< none of them an EditAll
    bool operator==(const EditAll &other) const = default;
};

/// The document after the edit. Errors: the place is what was edited, the reason says what would be
/// allowed; the document given is untouched in any case.
Result<Build> applyEdit(const Build &build, const Edit &edit);

/// Edits that were applied and checked before, one after the other, checked as a whole only once:
/// as long as their number, not as long as it times the document. Errors: as applyEdit.
Result<Build> replayEdits(const Build &build, std::span<const Edit> edits);

/// Whether a number may be a reading of this family at all. Errors: the reason, place empty.
Result<void> checkReadingValue(const Family &family, double value_um);

/// What says which of two sizes is right: the one that counts, or the other. An engine's
/// displacement that is to be another becomes so by its stroke.
Edit settledBy(const Build &build, const TwoValues &two, bool other);

/// One sentence for the Edit menu: "Main 4, front 90°: 58 µm".
Phrase describeEdit(const Build &build, const Edit &edit);

/// Every kind of edit there is.
std::vector<const EditKind *> editKinds();

Json editToJson(const Edit &edit);
Result<Edit> editFromJson(const Json &json);

} // namespace mildpath
