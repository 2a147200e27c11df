// SPDX-License-Identifier: GPL-3.0-or-later
#include "quantity/record.h"

#include "quantity/json.h"

namespace mildpath {

void readRecord(JsonReader &in, Record &r)
{
    r.id = in.text("id");
    r.by = in.text("by", "");
    r.at = in.text("at", "");
    r.note = in.text("note", "");
    r.replaces = in.text("replaces", "");
    r.takenBack = in.boolean("taken_back", false);
    const Json &photos = in.array("photos");
    for (size_t i = 0; i < photos.size(); ++i) {
        if (photos[i].is_string())
            r.photos.push_back(photos[i].get<std::string>());
        else
            in.error("photos/" + std::to_string(i), "must be a file name");
    }
}

Json recordToJson(const Record &r)
{
    Json out = { { "id", r.id }, { "by", r.by }, { "at", r.at } };
    if (!r.note.empty())
        out["note"] = r.note;
    if (!r.replaces.empty())
        out["replaces"] = r.replaces;
    if (r.takenBack)
        out["taken_back"] = true;
    if (!r.photos.empty())
        out["photos"] = r.photos;
    return out;
}

} // namespace mildpath
