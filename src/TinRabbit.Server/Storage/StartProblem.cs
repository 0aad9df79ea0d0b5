namespace TinRabbit.Server.Storage;

/// <summary>Why the program cannot start: one sentence that says what is wrong and what to do.</summary>
internal sealed class StartProblem(string message, Exception? cause = null) : Exception(message, cause);
