namespace TinRabbit.Server.Files.Tables;

/// <summary>Numbers as people and programs write them: 1,300 and 1.300 and 1 300, 12.1k, € 0,45, &lt; 10, unknown.</summary>
public static class WrittenNumbers
{
    /// <summary>What was made of a cell.</summary>
    public enum Kind
    {
        /// <summary>A number.</summary>
        Number,

        /// <summary>It says that nothing is known, or nothing at all.</summary>
        Unknown,

        /// <summary>It says only within which bounds the number lies: &lt; 10, 100 – 1k. The number itself is unknown.</summary>
        Bound,

        /// <summary>It is no number.</summary>
        Bad,
    }

    private const decimal Highest = 1_000_000_000_000;

    /// <summary>Reads a cell.</summary>
    /// <param name="cell">As written.</param>
    /// <param name="style">Which sign begins the decimals; where null, three digits behind a single sign are thousands and other ones decimals.</param>
    /// <param name="number">0 or more; of a bound, what the number is below, 0 where only a lower bound is known.</param>
    public static Kind Read(ReadOnlySpan<char> cell, NumberStyle? style, out decimal number)
    {
        number = 0;
        Span<char> kept = stackalloc char[40];
        var length = 0;
        foreach (var c in cell)
        {
            if (char.IsWhiteSpace(c) || c is '"' or '\'' or '’' or '$' or '£' or '€' or '\u202F' or '\u00A0')
                continue;
            if (length == kept.Length)
                return Kind.Bad;
            kept[length++] = char.ToLowerInvariant(c);
        }

        var text = kept[..length];
        if (text.Length == 0 || text is "-" or "–" or "—" or "?" or "unknown" or "n/a" or "na" or "null" or "none")
            return Kind.Unknown;
        // "900" is the hot path of a million rows.
        if (text.Length <= 9 && !text.ContainsAnyExceptInRange('0', '9'))
        {
            var whole = 0;
            foreach (var c in text)
                whole = whole * 10 + (c - '0');
            number = whole;
            return Kind.Number;
        }

        if (text[0] is '<' or '>' or '≤' or '≥')
        {
            var isUpper = text[0] is '<' or '≤';
            if (Read(text[1..].TrimStart('='), style, out var bound) is not Kind.Number)
                return Kind.Bad;
            number = isUpper ? bound : 0;
            return Kind.Bound;
        }

        if (
            text[1..].IndexOfAny('–', '-') is >= 0 and var dash
            && Read(text[..(dash + 1)], style, out var low) is Kind.Number
            && Read(text[(dash + 2)..], style, out var high) is Kind.Number
            && low < high
        )
        {
            number = high;
            return Kind.Bound;
        }

        if (text[0] == '~')
            text = text[1..];
        if (text.Length > 1 && text[^1] == '+')
            return Read(text[..^1], style, out _) is Kind.Number ? Kind.Bound : Kind.Bad;
        var times =
            text.Length == 0
                ? 1
                : text[^1] switch
                {
                    'k' => 1_000m,
                    'm' => 1_000_000m,
                    _ => 1m,
                };
        if (times > 1)
            text = text[..^1];
        Span<char> plain = stackalloc char[40];
        if (
            !Plain(text, style, thousandsLetter: times > 1, plain, out var plainLength)
            || !decimal.TryParse(plain[..plainLength], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out number)
            || number * times > Highest
        )
        {
            number = 0;
            return Kind.Bad;
        }

        number *= times;
        return Kind.Number;
    }

    // The digits with a point before the decimals.
    private static bool Plain(ReadOnlySpan<char> text, NumberStyle? style, bool thousandsLetter, Span<char> plain, out int length)
    {
        length = 0;
        var decimals = style switch
        {
            NumberStyle.Point => '.',
            NumberStyle.Comma => ',',
            _ => Decimals(text, thousandsLetter),
        };
        var groups = decimals switch
        {
            '.' => ',',
            ',' => '.',
            _ => '\0',
        };
        var whole = decimals != '\0' && text.LastIndexOf(decimals) is >= 0 and var at ? text[..at] : text;
        if (!IsGrouped(whole, groups))
            return false;
        foreach (var c in text)
            if (char.IsAsciiDigit(c))
                plain[length++] = c;
            else if (c == decimals)
                plain[length++] = '.';
            else if (c is not ('.' or ',') || (groups != '\0' && c != groups))
                return false;
        return length > 0;
    }

    // Which sign begins the decimals of a number that stands alone; none where both only group.
    private static char Decimals(ReadOnlySpan<char> text, bool thousandsLetter)
    {
        var (comma, point) = (text.LastIndexOf(','), text.LastIndexOf('.'));
        if (comma >= 0 && point >= 0)
            return comma > point ? ',' : '.';
        var at = Math.Max(comma, point);
        if (at < 0)
            return '.';
        return !thousandsLetter && IsGrouped(text, text[at])
            ? text[at] == ','
                ? '.'
                : ','
            : text[at];
    }

    // Digits in threes behind the first group, or not grouped at all.
    private static bool IsGrouped(ReadOnlySpan<char> whole, char sign)
    {
        if (sign == '\0' || !whole.Contains(sign))
            return whole.Length == 0 || !whole.ContainsAnyExceptInRange('0', '9');
        if (whole.IndexOf(sign) is < 1 or > 3)
            return false;
        foreach (var group in whole.Split(sign))
        {
            var digits = whole[group];
            if (digits.ContainsAnyExceptInRange('0', '9') || (group.Start.Value > 0 && digits.Length != 3))
                return false;
        }

        return true;
    }
}
