using System.Net;

namespace TinRabbit.Server.Hosting;

/// <summary>
/// Lets in only requests that the owner's own browser window makes: to a name of this server, and from its own pages. A web page of somebody
/// else can neither read nor change the shop, also not by giving its own name this computer's address (DNS rebinding).
/// </summary>
internal sealed class RequestGuard(RequestDelegate next, StartOptions options)
{
    private static readonly string ContentPolicy = string.Join(
        "; ",
        "default-src 'self'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' data: blob:",
        "font-src 'self'",
        "connect-src 'self'",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'"
    );

    public Task InvokeAsync(HttpContext context)
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = ContentPolicy;
        headers.XContentTypeOptions = "nosniff";
        headers.XFrameOptions = "DENY";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        if (!IsOwnHost(context.Request.Host))
            return Refuse(
                context,
                StatusCodes.Status421MisdirectedRequest,
                "This server does not answer to that name. Open it by its own address."
            );
        if (IsForeign(context.Request))
            return Refuse(context, StatusCodes.Status403Forbidden, "Only the shop's own pages may ask this.");
        if (!options.OnlyThisComputer && !context.Request.IsHttps)
            return Refuse(context, StatusCodes.Status403Forbidden, "Open the shop over HTTPS.");
        if (context.Request.Path.StartsWithSegments("/api"))
            headers.CacheControl = "no-store";
        return next(context);
    }

    private bool IsOwnHost(HostString host)
    {
        var name = host.Host.Trim('[', ']');
        return string.Equals(name, "localhost", StringComparison.OrdinalIgnoreCase)
            || (
                IPAddress.TryParse(name, out var address)
                && (IPAddress.IsLoopback(address) || (!options.OnlyThisComputer && address.Equals(options.Listen)))
            )
            || options.Hosts.Contains(name, StringComparer.OrdinalIgnoreCase);
    }

    // Browsers tell where a request comes from; programs that are no browser tell nothing and are let in.
    private static bool IsForeign(HttpRequest request)
    {
        var reads = HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method);
        if (
            request.Headers["Sec-Fetch-Site"].ToString() is "cross-site" or "same-site"
            && (!reads || request.Path.StartsWithSegments("/api"))
        )
            return true;
        return !reads
            && request.Headers.Origin.ToString() is { Length: > 0 } origin
            && !string.Equals(origin, $"{request.Scheme}://{request.Host}", StringComparison.OrdinalIgnoreCase);
    }

    private static Task Refuse(HttpContext context, int status, string why) =>
        Results.Problem(why, statusCode: status, title: "Refused.").ExecuteAsync(context);
}
