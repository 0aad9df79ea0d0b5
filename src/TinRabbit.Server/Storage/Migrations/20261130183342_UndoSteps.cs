using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class UndoSteps : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Imports",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "ListingId",
                table: "Changes",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "PageId",
                table: "Changes",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Screen",
                table: "Changes",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            // A change was undone by its picks and facts, by a reversal, or by a state of the shop; now all of them have steps.
            migrationBuilder.Sql(
                """
                CREATE TEMP TABLE "Old" AS SELECT "Id", "ProductId", "Before" AS "Picks", "FactsBefore" AS "Facts",
                    json_extract("Reversal", '$.kind') AS "Kind", json_extract("Reversal", '$.entity') AS "Entity",
                    json_extract("Reversal", '$.id') AS "Key", json_extract("Reversal", '$.before') AS "Before",
                    json_extract("Reversal", '$.at') AS "At"
                FROM "Changes";
                CREATE TEMP TABLE "Shop" AS SELECT "Id", "Before" AS "State" FROM "Old"
                WHERE "Before" <> '' AND ("Kind" = 3 OR ("Kind" = 0 AND "Entity" = 10));
                CREATE TEMP TABLE "Steps"("ChangeId" INTEGER, "Place" INTEGER, "Step" TEXT);

                INSERT INTO "Steps" SELECT "Id", 0, json_object('$type', 'ProductState', 'id', "ProductId", 'facts', json("Facts"), 'picks', json("Picks"))
                FROM "Old" WHERE "Kind" IS NULL;
                INSERT INTO "Steps" SELECT "Id", 0, json_object('$type', 'RestoreTerms', 'marketId', "Key", 'terms', json("Before"))
                FROM "Old" WHERE "Kind" = 0 AND "Entity" = 4;
                INSERT INTO "Steps" SELECT "Id", 0, json_object('$type', 'RestoreDeleted', 'at', "At") FROM "Old" WHERE "Kind" = 0 AND "Entity" <> 4;
                INSERT INTO "Steps" SELECT "Id", 0, CASE "Entity"
                    WHEN 1 THEN json_object('$type', 'RemoveProducts', 'ids', json_array(CAST("Key" AS INTEGER)))
                    WHEN 2 THEN json_object('$type', 'RemoveListings', 'ids', json_array(CAST("Key" AS INTEGER)))
                    WHEN 5 THEN json_object('$type', 'RemoveImport', 'importId', CAST("Key" AS INTEGER))
                    WHEN 10 THEN json_object('$type', 'RemovePages', 'ids', json('[' || "Before" || ']'))
                    WHEN 16 THEN json_object('$type', 'RemoveRows', 'rows', 'FigureRow', 'keys', json_array(replace("Before", ',', '..')))
                    ELSE json_object('$type', 'RemoveRows', 'rows', CASE "Entity"
                        WHEN 3 THEN 'PlatformRow' WHEN 9 THEN 'FilterRow' WHEN 12 THEN 'RivalRow' WHEN 13 THEN 'ReviewRow' WHEN 14 THEN 'CheckRow' ELSE 'NoteRow'
                    END, 'keys', json('["' || CASE WHEN "Before" = '' THEN "Key" ELSE replace("Before", ',', '","') END || '"]'))
                END
                FROM "Old" WHERE "Kind" = 1;
                INSERT INTO "Steps" SELECT "Id", 0, CASE "Entity"
                    WHEN 0 THEN json_object('$type', 'ShopNames', 'name', "Before", 'currency', "Key")
                    WHEN 4 THEN json_object('$type', 'TermText', 'termId', CAST("Key" AS INTEGER), 'text', "Before")
                    WHEN 17 THEN json_object('$type', 'NoteBefore', 'noteId', CAST("Key" AS INTEGER), 'note', json("Before"))
                    ELSE json_object('$type', 'RenameRow', 'rows', CASE "Entity"
                        WHEN 1 THEN 'ProductRow' WHEN 5 THEN 'ImportRow' WHEN 7 THEN 'TakeRow' WHEN 8 THEN 'VersionRow' ELSE 'FilterRow'
                    END, 'id', CAST("Key" AS INTEGER), 'name', "Before")
                END
                FROM "Old" WHERE "Kind" = 2;

                INSERT INTO "Steps" SELECT "Id", 1, json_object('$type', 'PagesBefore', 'pages', json_extract("State", '$.pages'))
                FROM "Shop" WHERE json_array_length("State", '$.pages') > 0;
                INSERT INTO "Steps" SELECT s."Id", 2, json_set(e.value, '$."$type"', 'TextState') FROM "Shop" s, json_each(s."State", '$.texts') e;
                INSERT INTO "Steps" SELECT s."Id", 3, json_set(e.value, '$."$type"', 'ArchivedState') FROM "Shop" s, json_each(s."State", '$.archived') e;
                INSERT INTO "Steps" SELECT s."Id", 4, json_set(e.value, '$."$type"', 'LeadState') FROM "Shop" s, json_each(s."State", '$.leads') e;
                INSERT INTO "Steps" SELECT s."Id", 5, json_set(e.value, '$."$type"', 'PictureState') FROM "Shop" s, json_each(s."State", '$.pictures') e;
                INSERT INTO "Steps" SELECT s."Id", 6, json_set(e.value, '$."$type"', 'ProductState') FROM "Shop" s, json_each(s."State", '$.products') e;
                INSERT INTO "Steps" SELECT "Id", 7, json_set(json_extract("State", '$.site'), '$."$type"', 'SiteState')
                FROM "Shop" WHERE json_type("State", '$.site') = 'object';
                INSERT INTO "Steps" SELECT "Id", 8, json_set(json_extract("State", '$.shop'), '$."$type"', 'ShopNames')
                FROM "Shop" WHERE json_type("State", '$.shop') = 'object';
                INSERT INTO "Steps" SELECT "Id", 9, json_object('$type', 'OwnWordsBefore', 'words', json_extract("State", '$.ownWords'))
                FROM "Shop" WHERE json_type("State", '$.ownWords') = 'array';
                INSERT INTO "Steps" SELECT s."Id", 10, json_object('$type', 'ProfileBefore', 'platformId', e.key, 'profile', e.value)
                FROM "Shop" s, json_each(s."State", '$.platforms') e WHERE e.type = 'text';
                INSERT INTO "Steps" SELECT s."Id", 11, json_object('$type', 'RemoveRows', 'rows', 'TakeRow', 'keys', json_array(CAST(e.value AS TEXT)))
                FROM "Shop" s, json_each(s."State", '$.addedTakes') e;
                INSERT INTO "Steps" SELECT s."Id", 12, json_object('$type', 'RedirectsBefore', 'pages', json_object(e.value, NULL))
                FROM "Shop" s, json_each(s."State", '$.addedRedirects') e;
                INSERT INTO "Steps" SELECT s."Id", 13, json_object('$type', 'RemoveRows', 'rows', 'PageRow', 'keys', json_array(CAST(e.value AS TEXT)))
                FROM "Shop" s, json_each(s."State", '$.addedPages') e;
                INSERT INTO "Steps" SELECT "Id", 14, json_object('$type', 'RemoveListings', 'ids', json_extract("State", '$.addedListings'))
                FROM "Shop" WHERE json_array_length("State", '$.addedListings') > 0;
                INSERT INTO "Steps" SELECT "Id", 15, json_object('$type', 'RemoveProducts', 'ids', json_extract("State", '$.addedProducts'))
                FROM "Shop" WHERE json_array_length("State", '$.addedProducts') > 0;
                INSERT INTO "Steps" SELECT s."Id", 16, json_object('$type', 'RemoveRows', 'rows', 'PlatformRow', 'keys', json_array(e.key))
                FROM "Shop" s, json_each(s."State", '$.platforms') e WHERE e.type = 'null';

                UPDATE "Changes" SET
                    "Screen" = (SELECT CASE
                        WHEN "Kind" IS NULL THEN 'Pick'
                        WHEN "Entity" IN (4, 5, 6, 9) THEN 'Dig'
                        WHEN "Entity" IN (2, 7, 8) THEN 'Write'
                        WHEN "Entity" IN (12, 13) THEN 'Weigh'
                        WHEN "Entity" > 13 THEN 'Watch'
                        WHEN "Entity" IN (10, 11) THEN 'Pages'
                        WHEN "Entity" = 3 THEN 'Settings'
                        ELSE 'Listings'
                    END FROM "Old" WHERE "Old"."Id" = "Changes"."Id"),
                    "Before" = (SELECT json_group_array(json("Step")) FROM (SELECT "Step" FROM "Steps" WHERE "ChangeId" = "Changes"."Id" ORDER BY "Place", rowid)),
                    "Reversal" = NULL;
                DROP TABLE "Steps"; DROP TABLE "Shop"; DROP TABLE "Old";
                """
            );

            migrationBuilder.DropColumn(
                name: "FactsBefore",
                table: "Changes");

            migrationBuilder.RenameColumn(
                name: "Reversal",
                table: "Changes",
                newName: "UndoneAt");

            migrationBuilder.RenameColumn(
                name: "Before",
                table: "Changes",
                newName: "Steps");

            migrationBuilder.CreateIndex(
                name: "IX_Changes_ListingId",
                table: "Changes",
                column: "ListingId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Changes_ListingId",
                table: "Changes");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Imports");

            migrationBuilder.DropColumn(
                name: "ListingId",
                table: "Changes");

            migrationBuilder.DropColumn(
                name: "PageId",
                table: "Changes");

            migrationBuilder.DropColumn(
                name: "Screen",
                table: "Changes");

            migrationBuilder.RenameColumn(
                name: "UndoneAt",
                table: "Changes",
                newName: "Reversal");

            migrationBuilder.RenameColumn(
                name: "Steps",
                table: "Changes",
                newName: "Before");

            migrationBuilder.AddColumn<string>(
                name: "FactsBefore",
                table: "Changes",
                type: "TEXT",
                nullable: true);
        }
    }
}
