using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;

namespace TinRabbit.Server.Hosting;

/// <summary>Whether a password is needed here, and whether it was given.</summary>
public sealed record SessionView(bool Needed, bool LoggedIn);

/// <summary>The owner's password.</summary>
public sealed record LoginRequest([MaxLength(OwnerPassword.Longest)] string Password);

/// <summary>A new password of the owner's.</summary>
/// <param name="Password">The one so far.</param>
/// <param name="Next">The new one.</param>
public sealed record PasswordRequest([MaxLength(OwnerPassword.Longest)] string Password, [MaxLength(OwnerPassword.Longest)] string Next);

/// <summary>Logging in, where other computers can connect. On this computer alone nobody has to.</summary>
internal static class SessionApi
{
    public const string Path = "/api/session";
    private const string StampClaim = "stamp";

    public static void MapSession(this IEndpointRouteBuilder app)
    {
        app.MapGet(Path, GetSession).WithTags("Session");
        app.MapPost(Path, LogIn).WithTags("Session").ProducesProblem(401).ProducesProblem(429);
        app.MapDelete(Path, LogOut).WithTags("Session");
        app.MapPost(Path + "/password", ChangePassword).WithTags("Session").ProducesProblem(401).ProducesProblem(429);
    }

    /// <summary>Refuses the API to whoever has not given the password. The pages themselves hold nothing of the shop.</summary>
    public static Task RequireOwner(HttpContext context, RequestDelegate next)
    {
        var secret = context.Request.Path.StartsWithSegments("/api") || context.Request.Path.StartsWithSegments("/openapi");
        return
            !secret
            || context.Request.Path.Equals(Path, StringComparison.OrdinalIgnoreCase)
            || context.User.Identity?.IsAuthenticated == true
            ? next(context)
            : NotLoggedIn("Log in with the owner's password first.").ExecuteAsync(context);
    }

    private static IResult NotLoggedIn(string why) =>
        Results.Problem(why, statusCode: StatusCodes.Status401Unauthorized, title: "Not logged in.");

    private static SessionView GetSession(HttpContext context, StartOptions options) =>
        new(!options.OnlyThisComputer, options.OnlyThisComputer || context.User.Identity?.IsAuthenticated == true);

    private static async Task<IResult> LogIn(LoginRequest request, HttpContext context, OwnerPassword password, StartOptions options)
    {
        if (options.OnlyThisComputer)
            return Results.NoContent();
        if (Refusal(request.Password, context, password) is { } refusal)
            return refusal;
        await Begin(context, password);
        return Results.NoContent();
    }

    private static IResult? Refusal(string given, HttpContext context, OwnerPassword password) =>
        password.Check(given, AddressOf(context)) switch
        {
            PasswordAnswer.Right => null,
            PasswordAnswer.LockedOut => Results.Problem(
                "Too many wrong passwords from this address. Try again in a quarter of an hour.",
                statusCode: StatusCodes.Status429TooManyRequests,
                title: "Locked out."
            ),
            _ => NotLoggedIn("This is not the owner's password."),
        };

    private static Task Begin(HttpContext context, OwnerPassword password) =>
        context.SignInAsync(
            new ClaimsPrincipal(
                new ClaimsIdentity(
                    [new(ClaimTypes.Name, "owner"), new(StampClaim, password.Stamp ?? "")],
                    CookieAuthenticationDefaults.AuthenticationScheme
                )
            )
        );

    /// <summary>Ends a session that was begun before somebody logged out or changed the password.</summary>
    public static async Task EndOldSessions(CookieValidatePrincipalContext session)
    {
        var password = session.HttpContext.RequestServices.GetRequiredService<OwnerPassword>();
        if (session.Principal?.FindFirstValue(StampClaim) is { Length: > 0 } stamp && stamp == password.Stamp)
            return;
        session.RejectPrincipal();
        await session.HttpContext.SignOutAsync();
    }

    // One network of IPv6 is one household.
    private static string AddressOf(HttpContext context) =>
        context.Connection.RemoteIpAddress is { } address
            ? address.AddressFamily == System.Net.Sockets.AddressFamily.InterNetworkV6 && !address.IsIPv4MappedToIPv6
                ? Convert.ToHexString(address.GetAddressBytes().AsSpan(0, 8))
                : address.MapToIPv4().ToString()
            : "";

    private static async Task<IResult> ChangePassword(
        PasswordRequest request,
        HttpContext context,
        OwnerPassword password,
        StartOptions options
    )
    {
        if (options.OnlyThisComputer)
            throw new InvalidInputException([new("password", "On this computer alone there is no password.")]);
        if (Refusal(request.Password, context, password) is { } refusal)
            return refusal;
        if (request.Next.Length < OwnerPassword.Shortest)
            throw new InvalidInputException([new("next", $"The owner's password has at least {OwnerPassword.Shortest} characters.")]);
        password.Set(request.Next);
        await Begin(context, password);
        return Results.NoContent();
    }

    // Everywhere: who logs out on a computer of somebody else's may have left another one open.
    private static async Task<IResult> LogOut(HttpContext context, OwnerPassword password, StartOptions options)
    {
        if (options.OnlyThisComputer)
            return Results.NoContent();
        if (context.User.Identity?.IsAuthenticated == true)
            password.EndSessions();
        await context.SignOutAsync();
        return Results.NoContent();
    }
}
