using System.Collections.Concurrent;
using System.Diagnostics;
using System.Runtime.CompilerServices;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Imports the terms of a file: all of them or none, with its progress as it goes.</summary>
internal static class ImportRun
{
    private const int BadShown = 100;
    private const int BatchSize = 1024;
    private const int BatchesAhead = 8;

    /// <summary>Reads the file, then writes its terms in one transaction.</summary>
    /// <param name="left">Ends the import when the client leaves.</param>
    /// <returns>How far it has come; the last part has the count, or what is wrong with the file.</returns>
    public static async IAsyncEnumerable<ImportPart> Run(
        string marketId,
        string file,
        RunRequest request,
        TinContext db,
        WriteGate writes,
        Shelves shelves,
        ChangeLog changes,
        [EnumeratorCancellation] CancellationToken left
    )
    {
        using var budget = CancellationTokenSource.CreateLinkedTokenSource(left);
        budget.CancelAfter(TimeSpan.FromMinutes(Bounds.ImportMinutes));
        var stop = budget.Token;
        var size = (double)new FileInfo(file).Length;
        var (read, bounds, bad, at) = (0, 0, 0, 0L);
        var firstBad = new List<BadRow>();
        var source = request.Source?.Trim() is { Length: > 0 } named
            ? named
            : Path.GetFileNameWithoutExtension(await File.ReadAllTextAsync(file + ".name", stop));
        // Loads the shelf before anything is written, so that nobody sees half an import.
        await shelves.Query(db, marketId, s => s.Count, stop);
        using var import = new TermImport(db.Database.GetConnectionString()!, writes);
        await using (var badFile = new StreamWriter(file + ".bad", append: false, new UTF8Encoding(true)))
        {
            await badFile.WriteAsync(TermFiles.BadHead);
            // One thread reads, the other stages.
            using var batches = new BlockingCollection<TableTerm[]>(BatchesAhead);
            var reading = Task.Run(
                () =>
                {
                    try
                    {
                        foreach (var batch in TermTables.Read(file, request.Look, Bad, bytes => at = bytes, stop: stop).Chunk(BatchSize))
                            batches.Add(batch, stop);
                    }
                    finally
                    {
                        batches.CompleteAdding();
                    }
                },
                CancellationToken.None
            );
            var (problem, readAll) = ("", false);
            try
            {
                var clock = Stopwatch.StartNew();
                while (
                    await Task.Run(() => batches.TryTake(out var next, Timeout.Infinite) ? next : null, CancellationToken.None) is { } batch
                )
                {
                    stop.ThrowIfCancellationRequested();
                    foreach (var t in batch)
                    {
                        import.Add(t);
                        bounds += t.Bounds;
                    }

                    read += batch.Length;
                    if (clock.ElapsedMilliseconds < 200)
                        continue;
                    clock.Restart();
                    yield return new(DigMessages.ReadingRows, 0.5 * at / size, read, bad, bounds, null, null, null);
                }

                readAll = true;
            }
            finally
            {
                // A client that leaves stops the reader too; it is awaited because it writes the file of bad rows.
                if (!readAll)
                    await budget.CancelAsync();
                problem = await Problem(reading, left);
            }

            if (problem.Length > 0)
            {
                yield return new(null, 0, read, bad, bounds, null, firstBad, problem + " Nothing was imported.");
                yield break;
            }

            void Bad(BadRow row)
            {
                bad++;
                badFile.Write(TermFiles.BadLine(row));
                if (firstBad.Count < BadShown)
                    firstBad.Add(row);
            }
        }

        var written = 0.0;
        var writing = Task.Run(
            () =>
                import.Finish(
                    marketId,
                    source,
                    TermTables.FirstMonth(request.Look),
                    db.Now,
                    share => Volatile.Write(ref written, share),
                    stop
                ),
            CancellationToken.None
        );
        try
        {
            while (await Task.WhenAny(writing, Task.Delay(200, CancellationToken.None)) != writing)
                yield return new(DigMessages.AddingTerms, 0.5 + 0.4 * Volatile.Read(ref written), read, bad, bounds, null, null, null);
        }
        finally
        {
            if (!writing.IsCompleted)
                await budget.CancelAsync();
            await writing.ContinueWith(_ => { }, CancellationToken.None, TaskContinuationOptions.None, TaskScheduler.Default);
            shelves.Evict(marketId);
        }

        if (writing.IsCanceled && !left.IsCancellationRequested)
        {
            yield return new(null, 0, read, bad, bounds, null, firstBad, TooSlow + " Nothing was imported.");
            yield break;
        }

        var count = await writing;
        if (count.New + count.Changed > 0)
        {
            yield return new(DigMessages.UpdatingNumbers, 0.92, read, bad, bounds, null, null, null);
            await shelves.Settle(db, marketId);
            await changes.Save(
                DigMessages.Imported(count.New + count.Changed, source),
                new(Screen.Dig),
                [new RemoveImport(count.Id)],
                CancellationToken.None
            );
        }

        yield return new(null, 1, read, bad, bounds, count, firstBad, null);
    }

    private static string TooSlow => $"The import took longer than {Bounds.ImportMinutes} minutes.";

    // What went wrong while reading, as a sentence; empty where nothing did or the client has left.
    private static async Task<string> Problem(Task reading, CancellationToken left)
    {
        try
        {
            await reading;
            return "";
        }
        catch (InvalidInputException wrong)
        {
            return wrong.Problems[0].Message;
        }
        catch (FileNotFoundException)
        {
            return "The file was removed meanwhile.";
        }
        catch (OperationCanceledException) when (!left.IsCancellationRequested)
        {
            return TooSlow;
        }
        catch (OperationCanceledException)
        {
            return "";
        }
    }
}
