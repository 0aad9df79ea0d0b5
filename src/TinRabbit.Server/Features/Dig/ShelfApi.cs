using System.Runtime.CompilerServices;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Terms of a market's shelf.</summary>
/// <param name="Rows">As many as were asked for.</param>
/// <param name="Passing">How many pass, shown or not.</param>
/// <param name="All">How many there are.</param>
/// <param name="Absent">Requested keys that are not on the shelf.</param>
/// <param name="Norm">Statistics of the shelf.</param>
public sealed record ShelfView(IReadOnlyList<ShelfTerm> Rows, int Passing, int All, IReadOnlyList<string> Absent, MarketStatistics Norm);

/// <summary>A term of a shelf.</summary>
public sealed record ShelfTerm(string Text, string Key, Measured Numbers);

/// <summary>Terms pasted onto a market's shelf.</summary>
public sealed record PasteRequest([MaxLength(Bounds.PasteLength)] string Text, [MaxLength(Bounds.NameLength)] string? Source);

/// <summary>The result of a paste.</summary>
/// <param name="Taken">Terms that are now on the shelf.</param>
/// <param name="New">How many of them the shelf did not know.</param>
/// <param name="Bad">Lines that could not be read, for correction.</param>
public sealed record PasteResult(int Taken, int New, IReadOnlyList<BadLine> Bad, int? Change);

/// <summary>A shelf's filters under a name.</summary>
/// <param name="Filters">In the format of the address bar.</param>
public sealed record SavedFilter(int Id, string Name, string Filters);

/// <summary>Filters to save.</summary>
public sealed record FilterRequest([MaxLength(Bounds.NameLength)] string Name, [MaxLength(Bounds.NoteLength)] string Filters);

/// <summary>Terms of a shelf.</summary>
public sealed record TermsRequest([MaxLength(1000), EachMaxLength(Bounds.TermLength)] IReadOnlyList<string> Texts);

/// <summary>A term and its new spelling.</summary>
public sealed record RenameTermRequest([Term] string Text, [Term] string Name);

/// <summary>Terms to measure.</summary>
public sealed record MeasureRequest([Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string> Texts);

/// <summary>A term that was measured.</summary>
/// <param name="Volume">Searches/mo; null where nobody types it, or the market does not know.</param>
public sealed record MeasuredTerm(string Text, long? Volume);

/// <summary>What stands for supply in a market.</summary>
public sealed record SupplyRequest(Supply Supply);

internal static class ShelfApi
{
    private const int MostRows = 2000;
    private const int MostExported = 1_000_000;
    private const int ExportedAtOnce = 2000;

    public static void MapShelf(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api");
        api.MapPost("/markets/{marketId}/shelf", GetShelf).DisableRequestTimeout();
        api.MapGet("/markets/{marketId}/sources", GetSources);
        api.MapPost("/markets/{marketId}/shelf/export.{format}", ExportShelf).Produces<string>(200, "text/csv").DisableRequestTimeout();
        api.MapPost("/markets/{marketId}/paste", PasteTerms).RetriesRaces();
        api.MapPost("/markets/{marketId}/measure", MeasureTerms).RetriesRaces();
        api.MapPut("/markets/{marketId}/supply", ChooseSupply);
        api.MapGet("/filters", GetFilters);
        api.MapPost("/filters", SaveFilter).RetriesRaces();
        api.MapDelete("/filters/{id:int}", DeleteFilter);
        api.MapPut("/filters/{id:int}/name", RenameFilter).RetriesRaces();
        api.MapPost("/filters/{id:int}/duplicate", DuplicateFilter).RetriesRaces();
        api.MapPost("/markets/{marketId}/terms/delete", DeleteTerms);
        api.MapPost("/markets/{marketId}/terms/rename", RenameTerm).RetriesRaces();
    }

    private static async Task<ShelfView> GetShelf(string marketId, ShelfQuery query, TinContext db, Shelves shelves, CancellationToken stop)
    {
        query = query with { Skip = Math.Max(0, query.Skip), Take = Math.Clamp(query.Take, 0, MostRows) };
        var (ids, passing, all, absent, norm) = await shelves.Search(
            db,
            marketId,
            query,
            s => s.Search(query) is var (found, count) ? (found, count, s.Count, Absent(query, s), s.Norm) : default,
            stop
        );
        return new ShelfView(await Rows(marketId, ids, db, shelves, stop), passing, all, absent, norm);
    }

    private static async Task<Changed> ChooseSupply(
        string marketId,
        SupplyRequest request,
        TinContext db,
        Shelves shelves,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var before = await shelves.Query(db, marketId, s => s.Norm.Supply, stop);
        if (before == request.Supply)
            return new(null);
        await shelves.ChooseSupply(db, marketId, request.Supply, stop);
        return await changes.Save(DigMessages.ChoseSupply(request.Supply), new(Screen.Dig), [new SupplyBefore(marketId, before)], stop);
    }

    private static async Task<IReadOnlyDictionary<string, int>> GetSources(
        string marketId,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    ) => await shelves.Query(db, marketId, s => s.Sources(), stop);

    private static async Task<IResult> ExportShelf(
        string marketId,
        string format,
        ShelfQuery query,
        TinContext db,
        Shelves shelves,
        HttpContext http,
        CancellationToken stop
    )
    {
        if (format is not ("csv" or "xlsx"))
            throw new NotThereException();
        var found = await shelves.Search(
            db,
            marketId,
            query,
            s => (s.Search(query with { Skip = 0, Take = MostExported }).Ids, Absent(query, s)),
            stop
        );
        return TermFiles.Download(Exported(marketId, found, db, shelves, stop), format, $"{marketId} terms");
    }

    private static async IAsyncEnumerable<(string, Measured)> Exported(
        string marketId,
        (IReadOnlyList<int> Ids, List<string> Absent) found,
        TinContext db,
        Shelves shelves,
        [EnumeratorCancellation] CancellationToken stop
    )
    {
        foreach (var some in found.Ids.Chunk(ExportedAtOnce))
        foreach (var row in await Rows(marketId, some, db, shelves, stop))
            yield return (row.Text, row.Numbers);
        foreach (var key in found.Absent)
            yield return (key, Measured.Nothing);
    }

    private static async Task<PasteResult> PasteTerms(
        string marketId,
        PasteRequest request,
        TinContext db,
        Shelves shelves,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var (pasted, bad) = PastedTerms.Read(request.Text);
        var source = request.Source?.Trim() is { Length: > 0 } named ? named : "pasted";
        var before = await Counting(db, marketId, pasted, stop);
        var terms = await shelves.Save(db, marketId, [.. pasted.Select(p => new Found(p.Text, ReadingOf(p, source, db.Now)))], stop);
        var steps = RemoveReadings.Of(marketId, before, terms);
        var changed =
            steps.Count > 0 ? await changes.Save(DigMessages.Pasted(terms.Count, source), new(Screen.Dig), steps, stop) : new Changed(null);
        return new(terms.Count, terms.Count - before.Count, bad, changed.Id);
    }

    // By the key of each term that lies there, the reading that counts.
    private static async Task<Dictionary<string, int?>> Counting(
        TinContext db,
        string marketId,
        IEnumerable<PastedTerm> pasted,
        CancellationToken stop
    ) =>
        (await Shelves.TermsOf(db, marketId, [.. pasted.Select(p => Tokens.Key(p.Text)).Distinct()], stop)).ToDictionary(
            t => t.Key,
            t => t.Value.ReadingId
        );

    private static ReadingRow? ReadingOf(PastedTerm pasted, string source, DateTime at) =>
        pasted is { Volume: null, Competition: null }
            ? null
            : new()
            {
                Volume = pasted.Volume,
                Competition = pasted.Competition,
                Source = source,
                TakenAt = at,
            };

    private static async Task<List<MeasuredTerm>> MeasureTerms(
        string marketId,
        MeasureRequest request,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var terms = await shelves.Measure(db, marketId, [.. request.Texts], stop);
        return request.Texts.Select(t => new MeasuredTerm(t, terms.GetValueOrDefault(Tokens.Key(t))?.Reading?.Volume)).ToList();
    }

    private static async Task<List<SavedFilter>> GetFilters(TinContext db, CancellationToken stop) =>
        await db.Filters.AsNoTracking().OrderBy(f => f.Name).Select(f => new SavedFilter(f.Id, f.Name, f.Filters)).ToListAsync(stop);

    private static async Task<SavedFilter> SaveFilter(FilterRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var name = request.Name.Trim() is { Length: > 0 and <= 60 } n
            ? n
            : throw new InvalidInputException([new("name", "Enter a name of at most 60 characters.")]);
        var row =
            await db.Filters.FirstOrDefaultAsync(f => f.Name == name, stop) ?? db.Filters.Add(new() { Name = name, Filters = "" }).Entity;
        var before = row.Filters;
        row.Filters = request.Filters;
        await db.SaveChangesAsync(stop);
        if (before != row.Filters)
            await changes.Save(
                DigMessages.SavedFilter(name),
                new(Screen.Dig),
                before.Length == 0 ? [RemoveRows.Of<FilterRow>([row.Id])] : [new FilterBefore(row.Id, before)],
                stop
            );
        return new(row.Id, row.Name, row.Filters);
    }

    private static async Task<Changed> DeleteFilter(int id, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var filter = await db.Filters.FindAsync([id], stop).OrNotThere();
        return await changes.Delete(ChangeMessages.Deleted("filter", filter.Name), new(Screen.Dig), [filter], stop);
    }

    private static async Task<Changed> RenameFilter(int id, NewName request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var filter = await db.Filters.FindAsync([id], stop).OrNotThere();
        var (before, name, undo) = (filter.Name, request.Checked(), RenameRow.Of(filter, id));
        await CheckFree(db, name, id, stop);
        filter.Rename(name);
        return await changes.Save(ChangeMessages.Renamed("filter", before, name), new(Screen.Dig), [undo], stop);
    }

    private static async Task<Changed> DuplicateFilter(int id, NewName request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var filter = await db.Filters.FindAsync([id], stop).OrNotThere();
        var name = request.Checked();
        await CheckFree(db, name, 0, stop);
        var copy = db.Filters.Add(new() { Name = name, Filters = filter.Filters }).Entity;
        await db.SaveChangesAsync(stop);
        return await changes.Save(
            ChangeMessages.Duplicated("filter", filter.Name),
            new(Screen.Dig),
            [RemoveRows.Of<FilterRow>([copy.Id])],
            stop
        );
    }

    private static async Task CheckFree(TinContext db, string name, int but, CancellationToken stop)
    {
        if (await db.Filters.AnyAsync(f => f.Name == name && f.Id != but, stop))
            throw new InvalidInputException([new("name", $"There is a filter named “{name}” already. Choose another name.")]);
    }

    private static async Task<Changed> DeleteTerms(
        string marketId,
        TermsRequest request,
        TinContext db,
        Shelves shelves,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var changed = new Changed(null);
        var keys = request.Texts.Select(Core.Words.Tokens.Key).ToHashSet(StringComparer.Ordinal);
        await db.InOneWrite(Delete, stop);
        return changed;

        async Task Delete()
        {
            if (await shelves.Delete(db, marketId, keys, stop) is { Count: > 0 } gone)
                changed = await changes.Save(
                    DigMessages.DeletedTerms([.. gone.Select(t => t.Text)]),
                    new(Screen.Dig),
                    [new RestoreTerms(marketId, gone)],
                    stop
                );
        }
    }

    private static async Task<Changed> RenameTerm(
        string marketId,
        RenameTermRequest request,
        TinContext db,
        Shelves shelves,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var (from, to) = (Core.Words.Tokens.Key(request.Text), Core.Words.Tokens.Key(request.Name));
        var term = await db.Terms.FirstOrDefaultAsync(t => t.MarketId == marketId && t.Key == from, stop).OrNotThere();
        if (to.Length == 0)
            throw new InvalidInputException([new("name", "Enter a term with at least one word.")]);
        if (to != from && await db.Terms.AnyAsync(t => t.MarketId == marketId && t.Key == to, stop))
            throw new InvalidInputException([new("name", $"“{request.Name.Trim()}” is on this shelf already.")]);
        var (what, undo) = (ChangeMessages.Renamed("term", term.Text, request.Name.Trim()), new TermText(term.Id, term.Text));
        (term.Text, term.Key) = (request.Name.Trim(), to);
        var changed = await changes.Save(what, new(Screen.Dig), [undo], stop);
        shelves.Evict(marketId);
        return changed;
    }

    private static List<string> Absent(ShelfQuery query, ShelfColumns shelf) => [.. (query.Also ?? []).Where(k => shelf.RowOf(k) < 0)];

    private static async Task<List<ShelfTerm>> Rows(
        string marketId,
        IReadOnlyList<int> ids,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var terms = await db.Terms.AsNoTracking().Include(t => t.Reading).Where(t => ids.Contains(t.Id)).ToDictionaryAsync(t => t.Id, stop);
        var known = await shelves.MeasuredOf(db, marketId, terms.Values, stop);
        return [.. ids.Where(terms.ContainsKey).Select(id => new ShelfTerm(terms[id].Text, terms[id].Key, known[terms[id].Key].Numbers))];
    }
}
