using Microsoft.AspNetCore.Diagnostics;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Server;

/// <summary>Turns what was wrong with a request into an RFC 9457 problem that names the field.</summary>
internal sealed class Problems : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken stop)
    {
        IResult? answer = exception switch
        {
            FormatProblems wrong => Wrong([.. wrong.Problems]),
            BadHttpRequestException { InnerException: System.Text.Json.JsonException json } when Missing(json) is { Length: > 0 } missing =>
                Wrong([.. missing.Select(name => new Problem(name, "This is needed."))]),
            BadHttpRequestException { InnerException: System.Text.Json.JsonException json } =>
                Wrong(new Problem(json.Path is { Length: > 2 } path ? path[2..] : "body", "This could not be read: " + json.Message.Split(" Path:")[0])),
            BadHttpRequestException bad => Results.Problem(bad.Message, statusCode: bad.StatusCode, title: "The request could not be read."),
            _ => null,
        };
        if (answer is null)
            return false;
        await answer.ExecuteAsync(context);
        return true;
    }

    // The names of what a request lacks are told by the reader in its message only.
    private static string[] Missing(System.Text.Json.JsonException json) =>
        json.Message.Split("missing required properties including:") is [_, var names]
            ? [.. names.Split('\'').Where((_, i) => i % 2 == 1).Select(n => json.Path is { Length: > 2 } path ? $"{path[2..]}.{n}" : n)]
            : [];

    /// <summary>A 400 whose <c>errors</c> names each field.</summary>
    public static IResult Wrong(params Problem[] problems) => Results.ValidationProblem(
        problems.GroupBy(p => p.Path).ToDictionary(g => g.Key, g => g.Select(p => p.Message).ToArray()),
        detail: string.Join(" ", problems.Select(p => $"{p.Path}: {p.Message}")),
        title: "Something in the request is wrong.");
}
