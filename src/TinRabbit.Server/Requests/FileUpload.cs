using Microsoft.AspNetCore.Mvc;

namespace TinRabbit.Server.Requests;

/// <summary>Endpoints that take a file as their body.</summary>
internal static class FileUpload
{
    /// <summary>
    /// Lets a file be larger than other requests: the server's bound would break the connection. The endpoint counts the bytes while it reads
    /// them, and says in words when there are too many. What the file is is seen from its content, whatever type it is sent with.
    /// </summary>
    public static RouteHandlerBuilder TakesFile(this RouteHandlerBuilder endpoint) =>
        endpoint.Accepts<byte[]>("*/*").WithMetadata(new DisableRequestSizeLimitAttribute());
}
