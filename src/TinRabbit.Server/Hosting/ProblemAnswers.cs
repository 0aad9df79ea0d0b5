using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Timeouts;
using Microsoft.Data.Sqlite;

namespace TinRabbit.Server.Hosting;

/// <summary>Turns what went wrong into an RFC 9457 problem: what is wrong with which field, or what happened and what to do.</summary>
internal sealed partial class ProblemAnswers(ILogger<ProblemAnswers> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken stop)
    {
        // The client has left: nobody to answer, and no error.
        if (exception is OperationCanceledException && context.RequestAborted.IsCancellationRequested)
        {
            context.Response.StatusCode = StatusCodes.Status499ClientClosedRequest;
            return true;
        }

        var answer = exception switch
        {
            InvalidInputException wrong => Wrong([.. wrong.Problems]),
            StartProblem problem => Plain(503, problem.Message, "Not possible now."),
            NotThereException gone => Plain(404, gone.Message, "Not there."),
            FileNotFoundException or DirectoryNotFoundException => Plain(
                404,
                "This file was removed meanwhile. Nothing was changed.",
                "Not there."
            ),
            BadHttpRequestException { InnerException: JsonException json } when Missing(json) is { Length: > 0 } missing => Wrong([
                .. missing.Select(name => new Problem(name, "This is missing.")),
            ]),
            BadHttpRequestException { InnerException: JsonException json } => Wrong(Unreadable(json)),
            BadHttpRequestException bad when Parameter().Match(bad.Message) is { Success: true } found => Wrong(
                new Problem(found.Groups["name"].Value, "This value could not be read.")
            ),
            BadHttpRequestException bad => Plain(bad.StatusCode, "The request could not be read.", "The request could not be read."),
            _ => Storage(exception),
        };
        if (answer is null)
        {
            log.LogError(exception, "{Method} {Path} failed.", context.Request.Method, context.Request.Path);
            return false;
        }

        await answer.ExecuteAsync(context);
        return true;
    }

    /// <summary>Says in words what the framework answers with a bare status: a body that is too large is refused before an endpoint sees it.</summary>
    public static void Explain(ProblemDetailsContext context)
    {
        if (context.ProblemDetails is { Status: StatusCodes.Status413PayloadTooLarge, Detail: null } tooLarge)
            tooLarge.Detail = $"The request is larger than {Bounds.RequestBytes >> 20} MB, which is the most.";
        if (context.ProblemDetails is { Status: StatusCodes.Status400BadRequest, Detail: null } unreadable)
            NameParameters(unreadable, context.HttpContext);
    }

    // An optional number of the query that is no number is refused without a word.
    private static void NameParameters(Microsoft.AspNetCore.Mvc.ProblemDetails problem, HttpContext http)
    {
        string[] names =
        [
            .. (http.GetEndpoint()?.Metadata.GetOrderedMetadata<Microsoft.AspNetCore.Http.Metadata.IParameterBindingMetadata>() ?? [])
                .Where(p => p.HasTryParse && http.Request.Query[p.Name] is { Count: > 0 } given && !int.TryParse(given, out _))
                .Select(p => p.Name),
        ];
        if (names.Length == 0)
            return;
        problem.Title = "Something in the request is wrong.";
        problem.Detail = string.Join(" ", names.Select(n => $"{n}: This is not a whole number."));
        problem.Extensions["errors"] = names.ToDictionary(n => n, _ => (string[])["This is not a whole number."]);
    }

    /// <summary>A 400 whose <c>errors</c> names each field.</summary>
    public static IResult Wrong(params Problem[] problems) =>
        Results.ValidationProblem(
            problems.GroupBy(p => p.Path).ToDictionary(g => g.Key, g => g.Select(p => p.Message).ToArray()),
            detail: string.Join(" ", problems.Take(5).Select(p => $"{p.Path}: {p.Message}"))
                + (problems.Length > 5 ? $" And {problems.Length - 5} more." : ""),
            title: "Something in the request is wrong."
        );

    // What a database or a disk refuses: what was typed stays in the window that sent it, which offers it again.
    private static IResult? Storage(Exception exception) =>
        Cause(exception) switch
        {
            SqliteException { SqliteErrorCode: 5 or 6 } => Plain(
                503,
                "The shop's database is busy. Nothing was changed; try again in a moment.",
                "Busy."
            ),
            SqliteException { SqliteErrorCode: 8 } => Plain(
                503,
                "The shop's database is read-only now. Nothing was changed; make its file writable and try again.",
                "Could not be saved."
            ),
            SqliteException { SqliteErrorCode: 10 } => Plain(
                503,
                "The disk could not be read or written. Nothing was changed; check the disk and try again.",
                "Could not be saved."
            ),
            SqliteException { SqliteErrorCode: 11 or 26 } => Plain(
                503,
                "The shop's database is damaged. Nothing was changed; restore a backup in Settings.",
                "The database is damaged."
            ),
            SqliteException { SqliteErrorCode: 9 } => Plain(503, "It was stopped. Nothing was changed.", "Stopped."),
            DbUpdateConcurrencyException or SqliteException { SqliteErrorCode: 19 } => Plain(
                409,
                "This was changed by another request at the same moment. Load it again and repeat the change.",
                "Changed meanwhile."
            ),
            Exception e when IsFull(e) => Plain(
                507,
                "The disk is full. Nothing was changed; free some space and try again.",
                "The disk is full."
            ),
            MarketException market => Plain(market.IsSlow ? 504 : 502, market.Message, "The market did not answer."),
            TimeoutException => Plain(503, "This took too long and was stopped. Nothing was changed; ask for less at once.", "Stopped."),
            _ => null,
        };

    private static bool IsFull(Exception exception) =>
        exception is SqliteException { SqliteErrorCode: 13 }
        || (exception is IOException && exception.Message.Contains("No space left", StringComparison.OrdinalIgnoreCase));

    private static Exception Cause(Exception exception) =>
        exception is DbUpdateException { InnerException: SqliteException sqlite } and not DbUpdateConcurrencyException ? sqlite : exception;

    private static IResult Plain(int status, string detail, string title) => Results.Problem(detail, statusCode: status, title: title);

    /// <summary>The policy of requests that only compute.</summary>
    public const string Computes = "computes";

    /// <summary>Stops what takes too long: its token is cancelled, and the answer says so.</summary>
    public static void SetTimeouts(RequestTimeoutOptions options)
    {
        options.DefaultPolicy = Policy(Bounds.RequestSeconds);
        options.AddPolicy(Computes, Policy(Bounds.ComputeSeconds));

        static RequestTimeoutPolicy Policy(int seconds) =>
            new()
            {
                Timeout = TimeSpan.FromSeconds(seconds),
                TimeoutStatusCode = StatusCodes.Status503ServiceUnavailable,
                WriteTimeoutResponse = context =>
                    Plain(
                            503,
                            $"This took longer than {seconds} seconds and was stopped. Nothing was changed; ask for less at once.",
                            "Stopped."
                        )
                        .ExecuteAsync(context),
            };
    }

    private static Problem Unreadable(JsonException json)
    {
        var path = json.Path is { Length: > 2 } p ? p[2..] : "body";
        return new(
            path,
            json.Message.Contains("could not be converted", StringComparison.Ordinal)
                ? "This value has the wrong type, or is none of those allowed here."
                : $"This is not JSON: the error is in line {(json.LineNumber ?? 0) + 1}, at byte {(json.BytePositionInLine ?? 0) + 1}."
        );
    }

    // The reader names what a request lacks in its message only.
    private static string[] Missing(JsonException json) =>
        json.Message.Split("missing required properties including:") is [_, var names]
            ? [.. names.Split('\'').Where((_, i) => i % 2 == 1).Select(n => json.Path is { Length: > 2 } path ? $"{path[2..]}.{n}" : n)]
            : [];

    [GeneratedRegex("parameter \"(?:\\S+ )?(?<name>\\w+)\"")]
    private static partial Regex Parameter();
}
