declare module 'logic-solver';
