// SPDX-License-Identifier: GPL-3.0-or-later
#include "document/editkind.h"

#include <array>

namespace mildpath {

template <> const RecordType &recordType<ExternalLine>()
{
    static const RecordType type
        = Describe<ExternalLine>("line")
              .must<&ExternalLine::id>("id", "unique among the lines")
              .must<&ExternalLine::from>("from", "part.port")
              .must<&ExternalLine::to>("to", "part.port")
              .ifSet<&ExternalLine::rating>("rating", "pressure or suction; else not known")
              .ifSet<&ExternalLine::by>("by", "who saw it so; else as planned")
              .ifSet<&ExternalLine::at>("at", "when: ISO 8601, local time")
              .ifSet<&ExternalLine::note>("note", "in one's own words")
              .ifSet<&ExternalLine::bore_mm>("bore_mm", "inside; else not measured")
              .in("mm")
              .keepsUnknown<&ExternalLine::extra>();
    return type;
}

template <> const RecordType &recordType<PortCap>()
{
    static const RecordType type = Describe<PortCap>("cap")
                                       .must<&PortCap::port>("port", "part.port")
                                       .ifSet<&PortCap::by>("by", "who saw it; absent: as planned")
                                       .ifSet<&PortCap::at>("at", "when");
    return type;
}

template <> const RecordType &recordType<Plumbing>()
{
    static const RecordType type
        = Describe<Plumbing>("plumbing")
              .field<&Plumbing::remoteFilter>("remote_filter",
                                              "the filter sits away from the block")
              .field<&Plumbing::filterBuild>("filter_build", "how the filter is made")
              .field<&Plumbing::lines>("lines", "lines outside the engine")
              .ifSet<&Plumbing::oldPumpPort>("old_pump_port",
                                             "the block keeps the port of the pump it had")
              .ifSet<&Plumbing::spares>("filter_spares", "spare ports of the filter head")
              .in("", 0, 4)
              .ifSet<&Plumbing::capped>("capped", "ports closed by a cap or plug")
              .keepsUnknown<&Plumbing::extra>();
    return type;
}

template <> const RecordType &recordType<PutLine>()
{
    static const RecordType type
        = Describe<PutLine>("line").must<&PutLine::line>("line", "the line");
    return type;
}

template <> const EditKind &editKind<PutLine>()
{
    static const EditKind kind = kindOf<PutLine>(
        [](Build build, const PutLine &e) -> Result<Build> {
            if (auto ok = putLine(build, e.line); !ok)
                return tl::unexpected(ok.error());
            return build;
        },
        [](const Build &build, const PutLine &e) -> Phrase {
            return "line: " + portName(build, e.line.from) + " to " + portName(build, e.line.to);
        });
    return kind;
}

template <> const RecordType &recordType<DropLine>()
{
    static const RecordType type
        = Describe<DropLine>("drop_line").must<&DropLine::line>("line", "its id");
    return type;
}

template <> const EditKind &editKind<DropLine>()
{
    static const EditKind kind = kindOf<DropLine>(
        [](Build build, const DropLine &e) -> Result<Build> {
            if (std::erase_if(build.plumbing.lines,
                              [&](const ExternalLine &l) { return l.id == e.line; })
                == 0)
                return fail("line", "there is no line \"" + e.line + "\"");
            return build;
        },
        [](const Build &, const DropLine &) -> Phrase { return "line taken off"; });
    return kind;
}

template <> const RecordType &recordType<CapPort>()
{
    static const RecordType type
        = Describe<CapPort>("cap_port")
              .must<&CapPort::port>("port", "part.port")
              .field<&CapPort::capped>("capped", "false: the cap comes off")
              .ifSet<&CapPort::by>("by", "who saw the cap")
              .ifSet<&CapPort::at>("at", "when");
    return type;
}

template <> const EditKind &editKind<CapPort>()
{
    static const EditKind kind = kindOf<CapPort>(
        [](Build build, const CapPort &e) -> Result<Build> {
            if (!findPort(portsOf(build), e.port))
                return fail("port", "there is no port \"" + e.port + "\"");
            auto &caps = build.plumbing.capped;
            std::erase_if(caps, [&](const PortCap &c) { return c.port == e.port; });
            if (e.capped)
                caps.push_back({ e.port, e.by, e.at });
            return build;
        },
        [](const Build &build, const CapPort &e) -> Phrase {
            return portName(build, e.port) + (e.capped ? ": capped" : ": cap off");
        });
    return kind;
}

template <> const RecordType &recordType<SetFilter>()
{
    static const RecordType type
        = Describe<SetFilter>("filter")
              .field<&SetFilter::remote>("remote", "sits away from the block")
              .must<&SetFilter::build>("build", "how it is made")
              .ifSet<&SetFilter::spares>("spares", "spare ports of its head")
              .in("", 0, 4);
    return type;
}

template <> const EditKind &editKind<SetFilter>()
{
    static const EditKind kind = kindOf<SetFilter>(
        [](Build build, const SetFilter &e) -> Result<Build> {
            if (filterBuild(e.build).id != e.build)
                return fail("build", "there is no filter \"" + e.build + "\"");
            build.plumbing.remoteFilter = e.remote;
            build.plumbing.filterBuild = e.build;
            if (!(e.spares >= 0 && e.spares <= 4))
                return fail("spares", "must be 0 to 4");
            build.plumbing.spares = e.spares;
            dropLooseLines(build);
            return build;
        },
        [](const Build &, const SetFilter &e) -> Phrase {
            return std::string(e.remote ? "filter away from the block: " : "filter on the block: ")
                + std::string(filterBuild(e.build).name);
        });
    return kind;
}

template <> const RecordType &recordType<DrawLines>()
{
    static const RecordType type = Describe<DrawLines>("draw_lines");
    return type;
}

template <> const EditKind &editKind<DrawLines>()
{
    static const EditKind kind = kindOf<DrawLines>(
        [](Build build, const DrawLines &) -> Result<Build> {
            if (!build.plumbing.lines.empty())
                return fail("lines", "there are lines already");
            build.plumbing.lines = usualLines(build);
            if (build.plumbing.capped.empty())
                build.plumbing.capped = usualCaps(build);
            return build;
        },
        [](const Build &, const DrawLines &) -> Phrase { return "the usual lines"; });
    return kind;
}

std::span<const EditKind *const> lineEdits()
{
    static const std::array kinds { &editKind<PutLine>(), &editKind<DropLine>(),
                                    &editKind<CapPort>(), &editKind<SetFilter>(),
                                    &editKind<DrawLines>() };
    return kinds;
}

} // namespace mildpath
