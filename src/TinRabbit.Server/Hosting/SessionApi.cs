using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;

namespace TinRabbit.Server.Hosting;

/// <summary>Whether a password is needed here, and whether it was given.</summary>
public sealed record SessionView(bool Needed, bool LoggedIn);

/// <summary>The owner's password.</summary>
public sealed record LoginRequest([MaxLength(OwnerPassword.Longest)] string Password);

/// <summary>Logging in, where other computers can connect. On this computer alone nobody has to.</summary>
internal static class SessionApi
{
    public const string Path = "/api/session";

    public static void MapSession(this IEndpointRouteBuilder app)
    {
        app.MapGet(Path, GetSession).WithTags("Session");
        app.MapPost(Path, LogIn).WithTags("Session").ProducesProblem(401).ProducesProblem(429);
        app.MapDelete(Path, LogOut).WithTags("Session");
    }

    /// <summary>Refuses the API to whoever has not given the password. The pages themselves hold nothing of the shop.</summary>
    public static Task RequireOwner(HttpContext context, RequestDelegate next)
    {
        var secret = context.Request.Path.StartsWithSegments("/api") || context.Request.Path.StartsWithSegments("/openapi");
        return !secret || context.Request.Path.StartsWithSegments(Path) || context.User.Identity?.IsAuthenticated == true
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
        switch (password.Check(request.Password))
        {
            case PasswordAnswer.Right:
                var owner = new ClaimsIdentity([new(ClaimTypes.Name, "owner")], CookieAuthenticationDefaults.AuthenticationScheme);
                await context.SignInAsync(new ClaimsPrincipal(owner));
                return Results.NoContent();
            case PasswordAnswer.LockedOut:
                return Results.Problem(
                    "Too many wrong passwords. Try again in a quarter of an hour.",
                    statusCode: StatusCodes.Status429TooManyRequests,
                    title: "Locked out."
                );
            default:
                return NotLoggedIn("This is not the owner's password.");
        }
    }

    private static async Task<IResult> LogOut(HttpContext context, StartOptions options)
    {
        if (!options.OnlyThisComputer)
            await context.SignOutAsync();
        return Results.NoContent();
    }
}
