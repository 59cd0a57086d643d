/** Names of the cookies that tell who is there, and from which device. */
export const sessionCookie = 'iunctura';
export const deviceCookie = 'iunctura-device';
