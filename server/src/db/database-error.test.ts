import { sql } from "drizzle-orm";
import { type TestApp, testApp } from "../../testing/test-app";
import { isBadData, isBusy, isGone } from "./database-error";

let app: TestApp;
beforeAll(async () => {
  app = await testApp();
});
afterAll(() => app.close());

/** Makes the real database fail with a given error number (MariaDB documentation, "MariaDB Error Code Reference"). */
const failWith = async (number: number): Promise<unknown> => {
  await app.database.pool.query(`CREATE OR REPLACE PROCEDURE fail_with() SIGNAL SQLSTATE 'HY000'
    SET MYSQL_ERRNO = ${number}, MESSAGE_TEXT = 'as it says'`);
  return app.database.db.execute(sql`call fail_with()`).then(
    () => undefined,
    (error: unknown) => error,
  );
};

test.each([
  [1037, "out of memory"],
  [1038, "out of memory to sort"],
  [1041, "out of memory of the system"],
  [1135, "no thread for a connection"],
  [1021, "disk full"],
  [1114, "table full"],
  [1026, "a file cannot be written"],
  [1053, "shutting down"],
])("error %i, %s: the database is away for a while, not broken", async (number) => {
  const error = await failWith(number);
  expect(error).toBeDefined();
  expect({ gone: isGone(error), busy: isBusy(error), bad: isBadData(error) }).toEqual({
    gone: true,
    busy: false,
    bad: false,
  });
});

test.each([
  [1205, "waited too long for a lock"],
  [1213, "deadlock"],
])("error %i, %s: the same again will do", async (number) => {
  const error = await failWith(number);
  expect({ gone: isGone(error), busy: isBusy(error), bad: isBadData(error) }).toEqual({
    gone: false,
    busy: true,
    bad: false,
  });
});

test("a value that is too long is the value's fault, and an unknown table no one's but ours", async () => {
  expect(isBadData(await failWith(1406))).toBe(true);
  const ours = await failWith(1146);
  expect({ gone: isGone(ours), busy: isBusy(ours), bad: isBadData(ours) }).toEqual({
    gone: false,
    busy: false,
    bad: false,
  });
});
