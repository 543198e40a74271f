"""The reserved names of each language."""

WORDS: dict[str, frozenset[str]] = {
    # C and C++, and what <math.h>, <string.h> and older Unix headers take.
    "c99": frozenset(
        """
        abs alignas alignof and and_eq asm atan2 auto bitand bitor bool break case catch ceil char class
        clock compl concept const const_cast constexpr continue copysign cos decltype default delete div do
        double dynamic_cast else enum exp explicit expm1 export extern fabs false far float floor fmod for
        friend gamma goto hypot if index inline int j0 j1 jn linux log long mutable namespace near new
        noexcept not not_eq nullptr operator or or_eq pow private protected public register reinterpret_cast
        remainder requires restrict return round short signed signgam sin sizeof sqrt static static_assert
        static_cast struct switch tan template this thread_local throw time true trunc try typedef typeid
        typename union unix unsigned using virtual void volatile wchar_t while xor xor_eq y0 y1 yn
        """.split()
    ),
    "javascript": frozenset(
        """
        Infinity NaN abstract arguments await boolean break byte case catch char class const continue
        debugger default delete do double else enum eval export extends false final finally float for
        function goto if implements import in instanceof int interface let long native new null package
        private protected public return short static super switch synchronized this throw throws transient
        true try typeof undefined var void volatile while with yield
        """.split()
    ),
    "csharp": frozenset(
        """
        abstract as base bool break byte case catch char checked class const continue decimal default
        delegate do double else enum event explicit extern false finally fixed float for foreach goto if
        implicit in int interface internal is lock long namespace new null object operator out override
        params private protected public readonly ref return sbyte sealed short sizeof stackalloc static
        string struct switch this throw true try typeof uint ulong unchecked unsafe ushort using virtual
        void volatile while
        """.split()
    ),
    "lua": frozenset(
        """
        and assert break do else elseif end error false for function goto if in ipairs local math next nil
        not or pairs print repeat require return select string table then true type until while
        """.split()
    ),
    "python": frozenset(
        """
        False None True abs and as assert async await break case class continue def del elif else except
        finally float for from global if import in int is lambda len match max min nonlocal not or pass pow
        raise range return round sum try type while with yield
        """.split()
    ),
}
"""A variable with such a name gets an underscore appended."""
