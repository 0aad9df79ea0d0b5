namespace TinRabbit.Core.Words;

/// <summary>A glossary of one trade in another language, as data (Data/glossary-es.txt). It turns terms word by word: what it does not know it leaves to the seller.</summary>
public static class Glossary
{
    private static readonly Dictionary<string, Lazy<Words>> ByLanguage = new() { ["es"] = new(() => new Words("glossary-es.txt")) };

    /// <summary>The languages there is a glossary for, as BCP 47 tags.</summary>
    public static IReadOnlyCollection<string> Languages => ByLanguage.Keys;

    /// <summary>Turns a term: its head, then what is said of it.</summary>
    /// <exception cref="KeyNotFoundException">There is no glossary for that language.</exception>
    public static Translation Translate(string text, string language) => ByLanguage[language].Value.Translate(text);

    private sealed class Words
    {
        private readonly Dictionary<string, string> _heads = [];
        private readonly Dictionary<string, string> _words = [];
        private readonly int _longest;

        public Words(string file)
        {
            foreach (var line in WordData.Lines(file))
            {
                var parts = line.Split(" ; ");
                (parts[0] == "head" ? _heads : _words)[Tokens.Key(parts[1])] = parts[2];
            }

            _longest = _heads.Keys.Concat(_words.Keys).Max(k => k.Count(c => c == ' ') + 1);
        }

        public Translation Translate(string text)
        {
            var words = Tokens.Of(text).Select(t => t.Word).ToArray();
            var (head, from, to) = Head(words);
            if (head is null)
                return new(text, null, Rest(words, []));
            var said = new List<string>();
            var unknown = Rest([.. words[..from]], said);
            unknown.AddRange(Rest(words[to..], said));
            return new(text, unknown.Count > 0 ? null : string.Join(' ', said.Distinct().Prepend(head)), unknown);
        }

        private (string? Head, int From, int To) Head(string[] words)
        {
            for (var count = Math.Min(_longest, words.Length); count > 0; count--)
            for (var from = 0; from + count <= words.Length; from++)
                if (_heads.TryGetValue(string.Join(' ', words[from..(from + count)]), out var head))
                    return (head, from, from + count);
            return (null, 0, 0);
        }

        private List<string> Rest(string[] words, List<string> said)
        {
            var unknown = new List<string>();
            for (var from = 0; from < words.Length; )
            {
                var count = Math.Min(_longest, words.Length - from);
                while (count > 0 && !_words.ContainsKey(string.Join(' ', words[from..(from + count)])))
                    count--;
                if (count == 0)
                    unknown.Add(words[from++]);
                else
                {
                    said.Add(_words[string.Join(' ', words[from..(from + count)])]);
                    from += count;
                }
            }

            return unknown;
        }
    }
}
