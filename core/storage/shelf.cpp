// SPDX-License-Identifier: GPL-3.0-or-later
#include "storage/shelf.h"

#include "document/dimensions.h"
#include "quantity/json.h"
#include "storage/files.h"

#include <algorithm>
#include <atomic>
#include <thread>

namespace mildpath {
namespace {

std::string lower(std::string text)
{
    std::ranges::transform(text, text.begin(), [](unsigned char c) { return std::tolower(c); });
    return text;
}

/// Walks through a file without building a tree of it.
class Cover : public nlohmann::json_sax<Json>
{
public:
    explicit Cover(ShelfEntry &out)
        : m_out(out)
    {
    }
    std::string format;

    bool null() override { return true; }
    bool boolean(bool) override { return true; }
    bool number_integer(number_integer_t v) override { return number(static_cast<double>(v)); }
    bool number_unsigned(number_unsigned_t v) override { return number(static_cast<double>(v)); }
    bool number_float(number_float_t v, const string_t &) override { return number(v); }
    bool string(string_t &v) override
    {
        if (m_keys.size() == 1) {
            take("format", v, format);
            take("name", v, m_out.name);
            take("notes", v, m_out.notes);
        } else if (m_keys.size() == 2 && m_keys.front() == "engine") {
            take("name", v, m_out.engine);
            take("layout", v, m_out.layout);
        } else if (m_keys.size() == 2 && m_keys.front() == "oil")
            take("grade", v, m_out.oil);
        if (m_keys.empty() || v.empty())
            return true;
        if (m_keys.back() == "at")
            m_out.last = std::max(m_out.last, v);
        else if (m_keys.back() == "by")
            m_out.people.insert(v);
        return true;
    }
    bool binary(binary_t &) override { return true; }
    bool start_object(std::size_t) override
    {
        // Entries of the logbook's lists stand right in an array under a key of the document.
        if (m_depth == 2 && m_keys.size() == 1 && m_inArray) {
            count("readings", m_out.readings);
            count("filter_cuts", m_out.cuts);
            count("oil_samples", m_out.samples);
            count("bore_traces", m_out.traces);
        }
        ++m_depth;
        m_keys.emplace_back();
        return true;
    }
    bool key(string_t &k) override
    {
        m_keys.back() = k;
        return true;
    }
    bool end_object() override
    {
        --m_depth;
        m_keys.pop_back();
        return true;
    }
    bool start_array(std::size_t) override
    {
        if (++m_depth == 2)
            m_inArray = true;
        return true;
    }
    bool end_array() override
    {
        if (m_depth-- == 2)
            m_inArray = false;
        return true;
    }
    bool parse_error(std::size_t at, const std::string &,
                     const nlohmann::detail::exception &) override
    {
        m_out.trouble = "file is damaged at byte " + std::to_string(at);
        return false;
    }

private:
    void take(std::string_view key, const string_t &value, std::string &into) const
    {
        if (m_keys.back() == key)
            into = value;
    }
    void count(std::string_view key, int &into) const
    {
        if (m_keys.front() == key)
            ++into;
    }
    bool number(double v)
    {
        if (m_keys.size() == 1 && m_keys.back() == "version")
            m_out.version = static_cast<int>(v);
        else if (m_keys.size() == 2 && m_keys.front() == "engine")
            engineNumber(m_keys.back(), v);
        return true;
    }

    /// The displacement follows from bore and stroke, whichever of its numbers comes last.
    void engineNumber(std::string_view key, double v)
    {
        if (key == "cylinders")
            m_engine.cylinders = static_cast<int>(v);
        else if (const Field *f = recordType<Engine>().find(key); f && f->isRanged())
            f->setNumber(&m_engine, v);
        m_out.displacement_l = displacement_l(m_engine);
    }

    ShelfEntry &m_out;
    Engine m_engine; ///< its numbers
    std::vector<std::string> m_keys; ///< of the objects around, the last one asked
    int m_depth = 0; ///< objects and arrays around
    bool m_inArray = false;
};

} // namespace

bool ShelfEntry::matches(const std::string &search) const
{
    std::string all = path.filename().string() + ' ' + name + ' ' + notes + ' ' + engine + ' '
        + layout + ' ' + oil + ' ' + last;
    for (const std::string &p : people)
        all += ' ' + p;
    all = lower(std::move(all));
    const std::string words = lower(search);
    for (size_t at = 0; at < words.size();) {
        const size_t from = words.find_first_not_of(' ', at);
        if (from == words.npos)
            break;
        at = std::min(words.find(' ', from), words.size());
        if (all.find(words.substr(from, at - from)) == all.npos)
            return false;
    }
    return true;
}

std::vector<std::filesystem::path> buildsIn(const std::filesystem::path &folder)
{
    std::vector<std::filesystem::path> out;
    std::error_code code;
    for (auto it = std::filesystem::directory_iterator(folder, code);
         !code && it != std::filesystem::directory_iterator(); it.increment(code))
        if (it->path().extension() == ".mildpath")
            out.push_back(it->path());
    std::ranges::sort(out);
    return out;
}

ShelfEntry readShelfEntry(const std::filesystem::path &file)
{
    ShelfEntry out;
    out.path = file;
    const auto text = readTextFile(file);
    if (!text) {
        out.trouble = text.error().message;
        return out;
    }
    out.bytes = text->size();
    Cover cover(out);
    const bool whole = Json::sax_parse(*text, &cover);
    if (!whole && out.trouble.empty())
        out.trouble = "is damaged";
    else if (whole && cover.format != buildFormat)
        out.trouble = "is not a build of this program";
    else if (whole && out.version > buildVersion)
        out.trouble = "is of version " + std::to_string(out.version) + "; this program reads up to "
            + std::to_string(buildVersion);
    return out;
}

std::vector<ShelfEntry> openShelf(const std::filesystem::path &folder)
{
    const std::vector<std::filesystem::path> files = buildsIn(folder);
    std::vector<ShelfEntry> out(files.size());
    std::atomic<size_t> next { 0 };
    {
        std::vector<std::jthread> threads;
        const size_t cores = std::max(1U, std::thread::hardware_concurrency());
        for (size_t k = 0; k < std::min(cores, files.size()); ++k)
            threads.emplace_back([&] {
                for (size_t i = next++; i < files.size(); i = next++)
                    out[i] = readShelfEntry(files[i]);
            });
    }
    return out;
}

} // namespace mildpath
