// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/passages/passagefields.h"
#include "entry/refusal.h"

#include <QObject>

#include <algorithm>
#include <cmath>

namespace mildpath {
namespace {

double inMm(double m)
{
    return std::round(m * 1e6) / 1e3;
}

template <class List> std::string freeId(const List &list, const std::string &stem)
{
    std::string id = stem;
    for (int n = 2;
         std::any_of(list.begin(), list.end(), [&](const auto &row) { return row.id == id; }); ++n)
        id = stem + "_" + std::to_string(n);
    return id;
}

class Fields
{
public:
    Fields(OpenBuild &open, const Passage &passage, PanelContent &out)
        : m_open(open)
        , m_passage(passage)
        , m_out(out)
    {
    }

    void run()
    {
        m_out.push_back(PanelRule {});
        m_out.push_back(PanelHeading { tr("As it is drilled") });
        sizes();
        belongs();
        for (int e = 0; e < 2; ++e)
            end(e);
        restrictors();
        more();
        school();
    }

private:
    using Change = std::function<void(Passage &)>;
    /// Stores the passage with a change. Captures values only: the panel outlives the document.
    std::function<Result<void>(Change)> put() const
    {
        return [&open = m_open, p = m_passage](const Change &change) {
            Passage changed = p;
            change(changed);
            return open.edit(PutPassage { changed });
        };
    }
    void length(const QString &id, const QString &label, std::optional<double> mm,
                std::function<Result<void>(double mm)> store)
    {
        m_out.push_back(PanelField {
            id, label, Dimension::Length, "mm", 1, mm ? std::optional(*mm / 1e3) : std::nullopt,
            [store = std::move(store)](double m) { return store(inMm(m)); } });
    }

    void sizes()
    {
        m_out.push_back(PanelWord { QStringLiteral("passage.name"), tr("name"), qs(m_passage.name),
                                    [put = put()](const QString &text) -> Result<void> {
                                        const std::string name = text.trimmed().toStdString();
                                        if (name.empty())
                                            return fail("", "a passage needs a name");
                                        return put([&](Passage &p) { p.name = name; });
                                    } });
        length(QStringLiteral("passage.d"), tr("diameter"), m_passage.d_mm,
               [&open = m_open, p = m_passage](double mm) { return open.edit(setBore(p, mm)); });
        length(QStringLiteral("passage.l"), tr("length"), m_passage.l_mm,
               [put = put()](double mm) { return put([&](Passage &p) { p.l_mm = mm; }); });
        static constexpr std::array<const char *, 3> ways { "drilled", "cast", "tube" };
        PanelChoice made { QStringLiteral("passage.made"), tr("made"), {}, 0, {} };
        for (size_t i = 0; i < ways.size(); ++i) {
            made.options << tr(ways[i]);
            if (m_passage.made == ways[i])
                made.current = static_cast<int>(i);
        }
        made.chosen = [put = put()](int i) {
            return put([&](Passage &p) { p.made = ways[static_cast<size_t>(i)]; });
        };
        m_out.push_back(std::move(made));
        m_out.push_back(PanelTick {
            QStringLiteral("passage.curved"),
            Mark::NotAsked,
            tr("bends: no brush goes through"),
            {},
            m_passage.curved,
            [put = put()](bool on) { saidIfRefused(put([&](Passage &p) { p.curved = on; })); } });
    }

    void belongs()
    {
        PanelChoice part { QStringLiteral("passage.part"), tr("in the"), {}, 0, {} };
        for (const PassagePart &p : passageParts()) {
            if (p.id == m_passage.part)
                part.current = static_cast<int>(part.options.size());
            part.options << qs(p.name);
        }
        part.chosen = [put = put()](int i) {
            return put([&](Passage &p) { p.part = passageParts()[static_cast<size_t>(i)].id; });
        };
        m_out.push_back(std::move(part));
        PanelChoice stop { QStringLiteral("passage.stop"), tr("stop"), { tr("none") }, 0, {} };
        std::vector<std::string> ids { "" };
        for (const Stop &s : m_open.build().engine.stops) {
            if (s.id == m_passage.stop)
                stop.current = static_cast<int>(ids.size());
            stop.options << qs(s.name);
            ids.push_back(s.id);
        }
        stop.chosen = [put = put(), ids](int i) {
            return put([&](Passage &p) { p.stop = ids[static_cast<size_t>(i)]; });
        };
        m_out.push_back(std::move(stop));
    }

    void end(int e)
    {
        const PassageEnd &end = m_passage.ends[static_cast<size_t>(e)];
        const QString label = e == 0 ? tr("near end") : tr("far end");
        const QString id = QStringLiteral("passage.end%1").arg(e);
        if (end.kind == "joint") {
            const Passage *into = findPassage(m_open.build().passages, end.passage);
            length(id + QStringLiteral(".at"),
                   tr("%1 joins %2 at").arg(label, into ? qs(into->name) : qs(end.passage)),
                   end.at_mm, [put = put(), e](double mm) {
                       return put([&](Passage &p) { p.ends[static_cast<size_t>(e)].at_mm = mm; });
                   });
            return;
        }
        static constexpr std::array<const char *, 3> kinds { "hole", "plug", "blind" };
        PanelChoice kind {
            id, label, { tr("opens outside"), tr("has a plug"), tr("blind") }, 0, {}
        };
        for (size_t k = 0; k < kinds.size(); ++k)
            if (end.kind == kinds[k])
                kind.current = static_cast<int>(k);
        kind.chosen = [&open = m_open, put = put(), p = m_passage, e](int k) -> Result<void> {
            const double here = e == 0 ? 0 : p.l_mm;
            if (k == 1) {
                Plug plug;
                plug.id = freePlugId(open.build(), p.id + (e == 0 ? "_front" : "_rear"));
                plug.name = nextPlugName(open.build());
                plug.passage = p.id;
                plug.at_mm = here;
                plug.d_mm = std::max(2.0, p.d_mm);
                return open.edit(PutPlug { plug });
            }
            for (const Plug &plug : open.build().plugs)
                if (k == 0 && plug.passage == p.id && samePlace(plug.at_mm, here))
                    return open.edit(DropPlug { plug.id });
            return put([&](Passage &changed) {
                changed.ends[static_cast<size_t>(e)].kind = kinds[static_cast<size_t>(k)];
            });
        };
        m_out.push_back(std::move(kind));
    }

    void restrictors()
    {
        for (size_t i = 0; i < m_passage.restrictors.size(); ++i) {
            const Restrictor &r = m_passage.restrictors[i];
            length(QStringLiteral("passage.restrictor%1").arg(i),
                   tr("restrictor at %1, hole").arg(inWords(asLength(r.at_mm, 0))), r.d_mm,
                   [put = put(), i](double mm) {
                       return put([&](Passage &p) {
                           // Nothing left of it takes it out.
                           if (mm == 0)
                               p.restrictors.erase(p.restrictors.begin() + static_cast<long>(i));
                           else
                               p.restrictors[i].d_mm = mm;
                       });
                   });
        }
        length(QStringLiteral("passage.restrict"), tr("put a restrictor at"), std::nullopt,
               [put = put()](double mm) {
                   return put([&](Passage &p) { p.restrictors.push_back({ mm, p.d_mm / 4 }); });
               });
    }

    void more()
    {
        length(QStringLiteral("passage.branch"), tr("add a drilling that joins at"), std::nullopt,
               [&open = m_open, p = m_passage](double mm) {
                   Passage b;
                   b.id = freePassageId(open.build(), p.id + "_branch");
                   b.name = p.name + ", branch";
                   b.part = p.part;
                   b.stop = p.stop;
                   b.d_mm = std::max(1.0, std::round(p.d_mm / 2));
                   b.l_mm = 40;
                   b.ends[0] = { "joint", p.id, mm, false, "", {} };
                   return open.edit(PutPassage { b });
               });
        length(QStringLiteral("passage.hidden"), tr("add a plug inside, at"), std::nullopt,
               [&open = m_open, p = m_passage](double mm) {
                   Plug inner;
                   inner.id = freePlugId(open.build(), p.id + "_inner");
                   inner.name = nextPlugName(open.build());
                   inner.passage = p.id;
                   inner.at_mm = mm;
                   inner.d_mm = std::max(2.0, p.d_mm);
                   // Hidden behind the plug of the nearer end, where there is one.
                   const double here = mm < p.l_mm / 2 ? 0 : p.l_mm;
                   for (const Plug &outer : open.build().plugs)
                       if (outer.passage == p.id && samePlace(outer.at_mm, here))
                           inner.behind = outer.id;
                   return open.edit(PutPlug { inner });
               });
        length(QStringLiteral("passage.cut"), tr("cut it in two at"), std::nullopt,
               [&open = m_open, id = m_passage.id](double mm) {
                   return open.edit(CutPassage { id, mm });
               });
        // Offered only where nothing stands against it.
        if (applyEdit(m_open.build(), DropPassage { m_passage.id }))
            m_out.push_back(PanelButton { QStringLiteral("passage.drop"), tr("Take it out"),
                                          [&open = m_open, id = m_passage.id] {
                                              saidIfRefused(open.edit(DropPassage { id }));
                                          } });
    }

    void school()
    {
        const bool all = choiceOf(m_open.build(), "plugs_drawn") == "all";
        m_out.push_back(PanelRule {});
        PanelChoice choice { QStringLiteral("plan.school"),
                             tr("plugs to draw"),
                             { tr("as few as will do"), tr("all that may come out") },
                             all ? 1 : 0,
                             {} };
        choice.chosen = [&open = m_open](int i) {
            return open.choose("plugs_drawn", i == 1 ? "all" : "fewest");
        };
        m_out.push_back(std::move(choice));
        m_out.push_back(PanelText {
            tr("Two schools: all plugs out, so that every end is seen through; or blind "
               "and fully visible ones left, for each one drawn is one that can leak. "
               "Recorded with the build."),
            Tone::Muted });
    }

    OpenBuild &m_open;
    const Passage m_passage;
    PanelContent &m_out;
};

} // namespace

void addPassageFields(OpenBuild &open, const Passage &passage, PanelContent &out)
{
    Fields(open, passage, out).run();
}

std::string freePassageId(const Build &build, const std::string &stem)
{
    return freeId(build.passages, stem);
}

std::string freePlugId(const Build &build, const std::string &stem)
{
    return freeId(build.plugs, stem);
}

std::string nextPlugName(const Build &build)
{
    size_t n = build.plugs.size() + 1;
    while (std::any_of(build.plugs.begin(), build.plugs.end(),
                       [&](const Plug &p) { return p.name == "P" + std::to_string(n); }))
        ++n;
    return "P" + std::to_string(n);
}

} // namespace mildpath
