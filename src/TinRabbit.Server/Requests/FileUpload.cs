using Microsoft.AspNetCore.Mvc;

namespace TinRabbit.Server.Requests;

/// <summary>Endpoints that take a file as their body.</summary>
internal static class FileUpload
{
    /// <summary>
    /// Lets a file be larger than other requests: the server's bound would break the connection. The endpoint counts the bytes while it reads
    /// them, and says in words when there are too many.
    /// </summary>
    public static RouteHandlerBuilder TakesFile(this RouteHandlerBuilder endpoint, string type = "application/octet-stream") =>
        endpoint.Accepts<byte[]>(type).WithMetadata(new DisableRequestSizeLimitAttribute());
}
