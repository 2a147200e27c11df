// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <compare>
#include <cstddef>
#include <initializer_list>
#include <iterator>
#include <memory>
#include <utility>
#include <vector>

namespace mildpath {

/// A list whose copies share what neither has changed: entries stand in stretches of a fixed
/// length, and a change copies its own stretch alone. Adding to a copy of a list of n entries takes
/// the time and memory of one stretch and of n/length pointers, not of n entries.
///
/// Like a vector to the reader. Iterators only read; `front()`, `back()`, `[]` of a list that is
/// not const and `change()` give way to write. Not for lists that are sorted or inserted into.
template <class T> class SharedList
{
    static constexpr std::size_t length = 32;
    using Stretch = std::vector<T>;

public:
    using value_type = T;
    using size_type = std::size_t;

    class const_iterator
    {
    public:
        using iterator_category = std::random_access_iterator_tag;
        using value_type = T;
        using difference_type = std::ptrdiff_t;
        using pointer = const T *;
        using reference = const T &;

        const_iterator() = default;
        const_iterator(const SharedList *list, std::size_t at)
            : m_list(list)
            , m_at(at)
        {
        }
        reference operator*() const { return (*m_list)[m_at]; }
        pointer operator->() const { return &(*m_list)[m_at]; }
        reference operator[](difference_type n) const { return *(*this + n); }
        const_iterator &operator+=(difference_type n)
        {
            m_at = static_cast<std::size_t>(static_cast<difference_type>(m_at) + n);
            return *this;
        }
        const_iterator &operator-=(difference_type n) { return *this += -n; }
        const_iterator &operator++() { return *this += 1; }
        const_iterator &operator--() { return *this += -1; }
        const_iterator operator++(int) { return std::exchange(*this, *this + 1); }
        const_iterator operator--(int) { return std::exchange(*this, *this - 1); }
        friend const_iterator operator+(const_iterator i, difference_type n) { return i += n; }
        friend const_iterator operator+(difference_type n, const_iterator i) { return i += n; }
        friend const_iterator operator-(const_iterator i, difference_type n) { return i -= n; }
        friend difference_type operator-(const const_iterator &a, const const_iterator &b)
        {
            return static_cast<difference_type>(a.m_at) - static_cast<difference_type>(b.m_at);
        }
        bool operator==(const const_iterator &other) const { return m_at == other.m_at; }
        auto operator<=>(const const_iterator &other) const { return m_at <=> other.m_at; }

    private:
        const SharedList *m_list = nullptr;
        std::size_t m_at = 0;
    };
    using iterator = const_iterator;
    using const_reverse_iterator = std::reverse_iterator<const_iterator>;

    SharedList() = default;
    SharedList(std::initializer_list<T> entries) { assign(entries.begin(), entries.end()); }
    SharedList(const std::vector<T> &entries) { assign(entries.begin(), entries.end()); }

    std::size_t size() const { return m_size; }
    bool empty() const { return m_size == 0; }
    const_iterator begin() const { return { this, 0 }; }
    const_iterator end() const { return { this, m_size }; }
    const_reverse_iterator rbegin() const { return const_reverse_iterator(end()); }
    const_reverse_iterator rend() const { return const_reverse_iterator(begin()); }
    const T &operator[](std::size_t at) const { return (*m_stretches[at / length])[at % length]; }
    const T &front() const { return (*this)[0]; }
    const T &back() const { return (*this)[m_size - 1]; }

    T &operator[](std::size_t at) { return own(at / length)[at % length]; }
    T &front() { return (*this)[0]; }
    T &back() { return (*this)[m_size - 1]; }

    void push_back(T entry)
    {
        if (m_size % length == 0) {
            m_stretches.push_back(std::make_shared<Stretch>());
            m_stretches.back()->reserve(length);
        }
        own(m_size / length).push_back(std::move(entry));
        ++m_size;
    }
    void clear() { *this = {}; }
    template <class Iterator> void assign(Iterator from, Iterator to)
    {
        clear();
        for (; from != to; ++from)
            push_back(*from);
    }
    /// Every entry, to be changed.
    template <class Change> void change(Change how)
    {
        for (std::size_t i = 0; i < m_size; ++i)
            how((*this)[i]);
    }
    /// Takes out what the question holds for. @return how many
    template <class Question> std::size_t eraseIf(Question question)
    {
        SharedList left;
        for (const T &entry : std::as_const(*this))
            if (!question(entry))
                left.push_back(entry);
        const std::size_t gone = m_size - left.m_size;
        if (gone > 0)
            *this = std::move(left);
        return gone;
    }

    bool operator==(const SharedList &other) const
    {
        if (m_size != other.m_size)
            return false;
        for (std::size_t i = 0; i < m_stretches.size(); ++i)
            if (m_stretches[i] != other.m_stretches[i] && *m_stretches[i] != *other.m_stretches[i])
                return false;
        return true;
    }

private:
    /// A stretch nobody else reads, copied if somebody does.
    Stretch &own(std::size_t stretch)
    {
        std::shared_ptr<Stretch> &mine = m_stretches[stretch];
        if (mine.use_count() > 1) {
            auto copy = std::make_shared<Stretch>();
            copy->reserve(length);
            copy->assign(mine->begin(), mine->end());
            mine = std::move(copy);
        }
        return *mine;
    }

    std::vector<std::shared_ptr<Stretch>> m_stretches;
    std::size_t m_size = 0;
};

} // namespace mildpath
