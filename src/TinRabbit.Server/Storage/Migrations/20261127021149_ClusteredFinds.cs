using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <summary>The terms of a check lie together: two years of them are read for one chart.</summary>
    public partial class ClusteredFinds : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                CREATE TABLE "FindsNext" (
                    "CheckId" INTEGER NOT NULL,
                    "TermId" INTEGER NOT NULL,
                    "IsDone" INTEGER NOT NULL,
                    "Found" INTEGER NOT NULL,
                    "Rank" INTEGER NULL,
                    "Results" INTEGER NULL,
                    CONSTRAINT "PK_Finds" PRIMARY KEY ("CheckId", "TermId"),
                    CONSTRAINT "FK_Finds_Checks_CheckId" FOREIGN KEY ("CheckId") REFERENCES "Checks" ("Id") ON DELETE CASCADE,
                    CONSTRAINT "FK_Finds_FollowedTerms_TermId" FOREIGN KEY ("TermId") REFERENCES "FollowedTerms" ("Id") ON DELETE CASCADE
                ) WITHOUT ROWID;
                INSERT INTO "FindsNext" SELECT "CheckId", "TermId", "IsDone", "Found", "Rank", "Results" FROM "Finds" ORDER BY "CheckId", "TermId";
                DROP TABLE "Finds";
                ALTER TABLE "FindsNext" RENAME TO "Finds";
                CREATE INDEX "IX_Finds_TermId" ON "Finds" ("TermId");
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql(
                """
                CREATE TABLE "FindsNext" (
                    "CheckId" INTEGER NOT NULL,
                    "TermId" INTEGER NOT NULL,
                    "IsDone" INTEGER NOT NULL,
                    "Found" INTEGER NOT NULL,
                    "Rank" INTEGER NULL,
                    "Results" INTEGER NULL,
                    CONSTRAINT "PK_Finds" PRIMARY KEY ("CheckId", "TermId"),
                    CONSTRAINT "FK_Finds_Checks_CheckId" FOREIGN KEY ("CheckId") REFERENCES "Checks" ("Id") ON DELETE CASCADE,
                    CONSTRAINT "FK_Finds_FollowedTerms_TermId" FOREIGN KEY ("TermId") REFERENCES "FollowedTerms" ("Id") ON DELETE CASCADE
                );
                INSERT INTO "FindsNext" SELECT "CheckId", "TermId", "IsDone", "Found", "Rank", "Results" FROM "Finds" ORDER BY "CheckId", "TermId";
                DROP TABLE "Finds";
                ALTER TABLE "FindsNext" RENAME TO "Finds";
                CREATE INDEX "IX_Finds_TermId" ON "Finds" ("TermId");
                """
            );
        }
    }
}
