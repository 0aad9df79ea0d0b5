using DiffPlex;
using DiffPlex.Chunkers;
using DiffPlex.DiffBuilder;
using DiffPlex.DiffBuilder.Model;
using TinRabbit.Server.Files.Tables;

namespace TinRabbit.Server.Listings;

/// <summary>Compares two states of a listing word by word.</summary>
internal static class FieldChanges
{
    private const int MostPieces = 4_000;

    /// <summary>The fields that differ between two states of a listing, with their words.</summary>
    public static List<FieldChange> Of(
        Platform platform,
        IReadOnlyDictionary<string, FieldValue> from,
        IReadOnlyDictionary<string, FieldValue> to
    ) =>
        [
            .. platform
                .Fields.Select(f => (Field: f, Before: Text(f, from), After: Text(f, to)))
                .Where(f => f.Before != f.After)
                .Select(f => new FieldChange(f.Field.Key, f.Field.Label, WordsOf(f.Before, f.After))),
        ];

    private static string Text(Field field, IReadOnlyDictionary<string, FieldValue> copy) =>
        copy.TryGetValue(field.Key, out var value) ? ListingFiles.OneText(field, value) : "";

    private static int Count(string text, char sign) => text.AsSpan().Count(sign);

    private static List<DiffRun> WordsOf(string before, string after)
    {
        var runs = new List<DiffRun>();
        // A comparison takes time with the square of what differs: long texts are compared line by line, longer ones as a whole.
        if (Count(before, '\n') + Count(after, '\n') > MostPieces)
            return [new(before, DiffKind.Removed), new(after, DiffKind.Added)];
        IChunker chunker = Count(before, ' ') + Count(after, ' ') > MostPieces ? new DelimiterChunker(['\n']) : new WordChunker();
        foreach (var piece in InlineDiffBuilder.Diff(before, after, ignoreWhiteSpace: false, chunker: chunker).Lines)
        {
            var are = piece.Type switch
            {
                ChangeType.Inserted => DiffKind.Added,
                ChangeType.Deleted => DiffKind.Removed,
                _ => DiffKind.Same,
            };
            if (runs.Count > 0 && runs[^1].Are == are)
                runs[^1] = runs[^1] with { Text = runs[^1].Text + piece.Text };
            else
                runs.Add(new(piece.Text, are));
        }

        return Gathered(runs);
    }

    // Joins removed words, and added words, that have only spaces between them.
    private static List<DiffRun> Gathered(List<DiffRun> runs)
    {
        var gathered = new List<DiffRun>();
        for (var i = 0; i < runs.Count; )
        {
            if (runs[i].Are == DiffKind.Same)
            {
                gathered.Add(runs[i++]);
                continue;
            }

            var (gone, come) = ("", "");
            for (; i < runs.Count && (runs[i].Are != DiffKind.Same || (string.IsNullOrWhiteSpace(runs[i].Text) && i + 1 < runs.Count)); i++)
            {
                gone += runs[i].Are != DiffKind.Added ? runs[i].Text : "";
                come += runs[i].Are != DiffKind.Removed ? runs[i].Text : "";
            }

            if (gone.Length > 0)
                gathered.Add(new(gone, DiffKind.Removed));
            if (come.Length > 0)
                gathered.Add(new(come, DiffKind.Added));
        }

        return gathered;
    }
}
