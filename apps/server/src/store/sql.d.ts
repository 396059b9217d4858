declare module '*.sql' {
  const text: string;
  export default text;
}
